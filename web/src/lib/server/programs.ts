import { createHash } from 'node:crypto';
import type { Kysely } from 'kysely';
import { compute, type JobResult } from '@kerbe/core/job/compute';
import type { Job } from '@kerbe/core/job/job';
import { programsFor } from '@kerbe/core/program/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { assetsOf, loadAssets } from './assets.ts';
import { revisionOf } from './jobs.ts';
import type { ProgramCutRow, Tables } from './tables.ts';

export interface KeptProgram {
  hash: string;
  name: string;
  cuts: ProgramCutRow[];
  minutes: number;
  lines: number;
  /** Planned minutes until every `LINE_STEP`th line. */
  timeline: number[];
}

export const LINE_STEP = 50;

/**
 * Makes the programs of one revision of a job and keeps them under their hash. The same revision gives the same text,
 * and so the same hash, on the same day.
 */
export async function makePrograms(
  db: Kysely<Tables>,
  id: string,
  revision: string,
): Promise<{ job: Job; result: JobResult; programs: KeptProgram[] }> {
  const job = await revisionOf(db, id, revision);
  const assets = await loadAssets(db, assetsOf(job));
  const result = await compute(
    job,
    resourcesFromDisk((hash) => assets.get(hash)?.bytes),
    await clipperFromDisk(),
  );
  const made = programsFor(job, result, { revision, date: new Date().toISOString().slice(0, 10) });
  const programs: KeptProgram[] = [];
  for (const [index, program] of made.entries()) {
    const hash = createHash('sha256').update(program.text).digest('hex');
    const cuts: ProgramCutRow[] = program.cuts.map(({ title, from, to, bit }) => ({ title, from, to, bit }));
    const { minutes } = program;
    const name = `${fileName(job.name)}${program.bit ? `-${index + 1}-${fileName(program.bit)}` : ''}.nc`;
    const timeline = timelineOf(program, result, job.bench.limits, LINE_STEP);
    await db
      .insertInto('programs')
      .values({
        hash,
        job_id: id,
        revision_id: revision,
        name,
        text: program.text,
        cuts: JSON.stringify(cuts),
        minutes,
      })
      .onConflict((c) => c.doNothing())
      .execute();
    programs.push({ hash, name, cuts, minutes, lines: program.text.split('\n').length - 1, timeline });
  }
  return { job, result, programs };
}

/** A name for a file: letters, digits and hyphens. `fileName('Entrance board')` is `'entrance-board'`. */
export function fileName(name: string): string {
  return (
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'job'
  );
}
