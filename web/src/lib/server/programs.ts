import type { CutJob } from '@kerbe/core/job/job';
import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Kysely } from 'kysely';
import { compute, type JobResult } from '@kerbe/core/compute/compute';
import { PLAIN, type Variant, varied, type Varied, VariantSchema } from '@kerbe/core/machines/program-variant';
import { programsFor, zeroWords } from '@kerbe/core/machines/programs';
import { type Timeline, timelineOf } from '@kerbe/core/program/timeline';
import { timelineBytes } from '@kerbe/core/program/timeline-bytes';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import type { Program } from '@kerbe/core/program/write';
import { formatLength } from '@kerbe/core/quantity/format';
import { titleOf } from '@kerbe/core/cuts/title';
import { leftWords } from '@kerbe/core/cuts/left-on-purpose';
import { thickest } from '@kerbe/core/stock/stock';
import { type ProgramOrder, ProgramOrderSchema } from '@kerbe/machine/runner/commands';
import { bitShapeOf, orderOf } from '@kerbe/machine/runner/of-job';
import { assetsOf, loadAssets } from './assets.ts';
import { revisionOf } from './jobs.ts';
import { BenchProblem } from './runner-client.ts';
import type { ProgramCutRow, RunSettings, Tables } from './tables.ts';

export interface KeptProgram {
  hash: string;
  name: string;
  /** The bit it is for, where each bit has a program of its own. */
  bit?: string;
  minutes: number;
  lines: number;
}

/** What is kept with a program’s text for running it: what the bench is to know, and what the log keeps. */
export interface KeptRun {
  order: ProgramOrder;
  /** How it was made otherwise than its job’s revision alone says, and which of the programs it is. */
  variant: Variant;
  which: number;
  /** Where it goes on with what has stopped, from zero, mm. */
  seam?: { x: number; y: number };
  settings: RunSettings;
  lines: number;
}

/** The programs of a job, and what of it must be mended before any is run. */
export interface MadePrograms {
  programs: KeptProgram[];
  wrong?: string;
}

/**
 * Makes the programs of one revision of a job, keeps them under their hash, and lays them where the bench runner finds
 * them. The same revision gives the same text, and so the same hash, on the same day.
 */
export async function makePrograms(
  db: Kysely<Tables>,
  id: string,
  revision: string,
  date: string,
  variant: Variant = PLAIN,
): Promise<MadePrograms> {
  const job = await revisionOf(db, id, revision);
  const assets = await loadAssets(db, assetsOf(job));
  const clipper = await clipperFromDisk();
  const plain = await compute(job, await resourcesFromDisk((hash) => assets.get(hash)?.bytes), clipper);
  const withheld = plain.remarks.find(({ withholds }) => withholds);
  if (withheld) throw new BenchProblem(withheld.text, 'withheld');
  const other = JSON.stringify(variant) !== JSON.stringify(PLAIN);
  const result: Varied = other ? varied(job, plain, variant, clipper) : { ...plain, notes: [] };
  const made = programsFor(job, { ...result, left: plain.left }, { revision, date, notes: result.notes });
  const programs: KeptProgram[] = [];
  for (const [index, program] of made.entries()) {
    const hash = createHash('sha256').update(program.text).digest('hex');
    const cuts: ProgramCutRow[] = program.cuts.map(({ title, from, to, bit }) => ({ title, from, to, bit }));
    const { minutes, bit } = program;
    const name = `${fileName(job.name)}${variant.dry ? '-dry' : ''}${variant.stopped.length ? '-taken-up' : ''}${bit ? `-${index + 1}-${fileName(bit)}` : ''}.nc`;
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
    const lines = program.text.split('\n').length - 1;
    const order = orderOf(id, job, result, program, revision, hash, variant);
    await layOut(program.text, timelineOf(program, result, job.bench.limits), {
      order,
      variant,
      which: index,
      seam: result.seam,
      settings: {
        ...settingsOf(job, result, program),
        notes: [...result.notes, ...plain.left.flatMap(leftWords)],
        dry: variant.dry,
      },
      lines,
    });
    programs.push({ hash, name, bit, minutes, lines });
  }
  const wrong = plain.remarks.find((remark) => remark.weight === 'wrong');
  return { programs, wrong: wrong?.text };
}

/** Writes a program, its times and what it is run with for the runner, each file whole or not at all. */
async function layOut(text: string, timeline: Timeline, run: KeptRun): Promise<void> {
  const { hash } = run.order;
  const folder = process.env.KERBE_PROGRAMS!;
  await mkdir(folder, { recursive: true });
  const whole = async (name: string, content: string | Uint8Array) => {
    const file = join(folder, name);
    await writeFile(`${file}.new`, content);
    await rename(`${file}.new`, file);
  };
  await whole(`${hash}.timeline`, timelineBytes(timeline));
  await whole(`${hash}.json`, JSON.stringify(run));
  await whole(`${hash}.nc`, text);
}

/** What a program is run with. @throws {BenchProblem} where no such program was written. */
export async function keptRun(hash: string): Promise<KeptRun> {
  try {
    const kept: unknown = JSON.parse(await readFile(join(process.env.KERBE_PROGRAMS!, `${hash}.json`), 'utf8'));
    return {
      ...(kept as KeptRun),
      which: (kept as Partial<KeptRun>).which ?? 0,
      variant: VariantSchema.parse((kept as Partial<KeptRun>).variant ?? PLAIN),
      order: ProgramOrderSchema.parse((kept as KeptRun).order),
    };
  } catch {
    throw new BenchProblem('This program is not kept here any more; write it again at Proof.');
  }
}

function settingsOf(job: CutJob, result: Pick<JobResult, 'cuts'>, program: Program): RunSettings {
  const made = new Set(program.cuts.map((cut) => cut.id));
  return {
    job: job.name,
    stock: `${job.stock.material}, ${formatLength(thickest(job.stock), job.unit)} thick`,
    zero: zeroWords(job),
    cuts: result.cuts
      .filter(({ id }) => made.has(id))
      .map((cut) => ({
        title: titleOf(
          job.cuts.find((c) => c.id === cut.cut)!,
          job,
          cut,
        ),
        bit: bitShapeOf(job.bits, cut.bit).name,
        depth: cut.depth,
        ...(cut.power === undefined ? {} : { power: cut.power }),
        feed: cut.feed,
        plunge: cut.plunge,
        speed: cut.speed,
        pressed: cut.pressed,
        turns: cut.turns,
        length: cut.cutLength,
      })),
  };
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
