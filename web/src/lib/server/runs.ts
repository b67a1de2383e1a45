import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import { formatLength } from '@kerbe/core/quantity/format';
import { titleOf } from '@kerbe/core/job/title';
import { zeroWords } from '@kerbe/core/program/programs';
import { thickest } from '@kerbe/core/stock/stock';
import { openJob } from './jobs.ts';
import { LINE_STEP, makePrograms } from './programs.ts';
import { BenchProblem, runEnds, tellRunner } from './runner-client.ts';
import type { RunSettings, Tables } from './tables.ts';

/**
 * Starts a run of a job as it stands: makes its program, hands it to the runner and writes the log's first entry.
 * @throws {BenchProblem} where something keeps it from starting.
 */
export async function startRun(db: Kysely<Tables>, id: string, base: string): Promise<string> {
  const open = await openJob(db, id);
  if (open.revision !== base)
    throw new BenchProblem(
      'The job was changed in another window since this page was loaded; look at it again before running it.',
    );
  const { job, result, programs } = await makePrograms(db, id, open.revision);
  const wrong = result.remarks.find((remark) => remark.weight === 'wrong');
  if (wrong) throw new BenchProblem(`Mend this before the run: ${wrong.text}`);
  const [program] = programs;
  if (!program) throw new BenchProblem('This job has no cuts yet; add one at Cuts.');
  if (programs.length > 1) throw new BenchProblem('This bench takes one program for each bit; download them at Proof.');
  const text = (
    await db.selectFrom('programs').select('text').where('hash', '=', program.hash).executeTakeFirstOrThrow()
  ).text;
  const run = randomUUID();
  const settings: RunSettings = {
    job: job.name,
    stock: `${job.stock.material}, ${formatLength(thickest(job.stock), job.unit)} thick`,
    zero: zeroWords(job),
    cuts: result.cuts.map((made) => {
      const cut = job.cuts.find((c) => c.id === made.cut)!;
      return {
        title: titleOf(cut, job, made),
        bit: job.bits.find((b) => b.id === made.bit)!.name,
        depth: made.depth,
        feed: made.feed,
        plunge: made.plunge,
        speed: made.speed,
        length: made.cutLength,
      };
    }),
  };
  await tellRunner({
    command: 'run',
    id: run,
    job: job.name,
    jobId: id,
    program: text,
    hash: program.hash,
    plannedMinutes: program.minutes,
    timeline: program.timeline,
    lineStep: LINE_STEP,
    cuts: program.cuts,
    travel: job.bench.travel,
    setter: job.bench.setter,
    lift: job.stock.lift,
  });
  await db
    .insertInto('runs')
    .values({
      id: run,
      job_id: id,
      program_hash: program.hash,
      bench: job.bench.name,
      phase: 'running',
      planned_minutes: program.minutes,
      settings: JSON.stringify(settings),
      ended: null,
      why: null,
      minutes: null,
    })
    .execute();
  return run;
}

export interface RunRow {
  id: string;
  phase: string;
  why: string | null;
  bench: string;
  plannedMinutes: number;
  minutes: number | null;
  settings: RunSettings;
  note: string;
  started: string;
  ended: string | null;
  hash: string;
  program: string;
  revision: string;
}

/** The runs of a job, the latest first. */
export async function runsOf(db: Kysely<Tables>, id: string): Promise<RunRow[]> {
  const rows = await db
    .selectFrom('runs')
    .innerJoin('programs', 'programs.hash', 'runs.program_hash')
    .selectAll('runs')
    .select(['programs.name as program', 'programs.revision_id as revision'])
    .where('runs.job_id', '=', id)
    .orderBy('runs.started', 'desc')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    phase: row.phase,
    why: row.why,
    bench: row.bench,
    plannedMinutes: row.planned_minutes,
    minutes: row.minutes,
    settings: row.settings,
    note: row.note,
    started: row.started.toISOString(),
    ended: row.ended?.toISOString() ?? null,
    hash: row.program_hash,
    program: row.program,
    revision: row.revision,
  }));
}

/** Writes into the log how runs ended, from the runner's journal; what was read is marked, so nothing counts twice. */
export async function syncRuns(db: Kysely<Tables>): Promise<void> {
  const mark = await db.selectFrom('marks').select('value').where('name', '=', 'journal').executeTakeFirst();
  const { next, ends } = await runEnds(Number(mark?.value ?? 0));
  if (next === Number(mark?.value ?? 0)) return;
  await db.transaction().execute(async (t) => {
    for (const end of ends)
      await t
        .updateTable('runs')
        .set({ phase: end.phase, why: end.why ?? null, minutes: end.minutes, ended: new Date(end.at) })
        .where('id', '=', end.id)
        .execute();
    await t
      .insertInto('marks')
      .values({ name: 'journal', value: String(next) })
      .onConflict((c) => c.column('name').doUpdateSet({ value: String(next) }))
      .execute();
  });
}
