import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import type { From } from '@kerbe/machine/runner/commands';
import { REASONS } from '@kerbe/machine/runner/reasons';
import type { Checked } from '@kerbe/machine/runner/runner-state';
import { PLAIN, type Variant } from '@kerbe/core/machines/program-variant';
import type { TakenUpBy } from '@kerbe/core/sequence/taken-up';
import { openJob } from './jobs.ts';
import { programsOf } from './made-programs.ts';
import { NOT_DRY } from './not-dry.ts';
import { keptRun } from './programs.ts';
import { BenchProblem, benchState, linkedBenches, RunnerAbsent, runEnds, tellRunner } from './runner-client.ts';
import type { RunSettings, Tables } from './tables.ts';

/** A program of a job as the Run stop lists it. */
export interface ProgramRow {
  hash: string;
  name: string;
  bit?: string;
  minutes: number;
  lines: number;
}

/**
 * Has one program of a job checked on the bench, as it stands now; a start names what was checked here.
 *
 * @param which of the job's programs, from 0, where each bit has one.
 * @throws {BenchProblem} where the job is not fit to be run.
 */
export async function checkRun(
  db: Kysely<Tables>,
  id: string,
  revision: string,
  which: number,
  from: From,
  signal: AbortSignal,
  how: Pick<Variant, 'dry' | 'frame' | 'from'> = PLAIN,
): Promise<{ programs: ProgramRow[]; checked: Checked }> {
  const open = await openJob(db, id);
  if (open.revision !== revision)
    throw new BenchProblem('The job was changed in another window since this page was loaded; look at it again first.');
  const variant = { ...PLAIN, ...how, turn: await turnOn(open.job.bench) };
  const { wrong, programs } = await programsOf(db, id, revision, from.page, signal, variant);
  if (wrong) throw new BenchProblem(`Mend this before the run: ${wrong}`);
  const program = programs[which];
  if (!program) throw new BenchProblem('This job has no cuts yet; add one at Cuts.');
  return {
    programs: programs.map(({ hash, name, bit, minutes, lines }) => ({ hash, name, bit, minutes, lines })),
    checked: await checked(open.job.bench.id, program.hash, from),
  };
}

/** How the stock lies turned on a linked bench, as somebody has pointed it out; radians. */
async function turnOn({ id, link }: { id: string; link: string }): Promise<number> {
  if (link !== 'stand-in') return 0;
  const { zero } = await benchState(id);
  return zero?.xy?.turn ?? 0;
}

/** Where a run goes on that was taken up by a program of its own, from zero, mm. */
export interface Seam {
  x: number;
  y: number;
}

/**
 * As `checkRun`, for what is left of a run that broke off and is taken up by a program of its own.
 * @throws {BenchProblem} where there is nothing left, or no room for a way in.
 */
export async function checkRest(
  db: Kysely<Tables>,
  id: string,
  run: string,
  by: TakenUpBy,
  from: From,
  signal: AbortSignal,
): Promise<{ checked: Checked; seam?: Seam; notes: string[] }> {
  const { program_hash, bench_id, line, stopped_at } = await brokenRun(db, id, run);
  if (!stopped_at && by === 'beside')
    throw new BenchProblem(
      'Where it stopped is not known, so nothing can be led in to there; take it up at the next pierce, or at its own lead where little was cut.',
    );
  const { order, variant, which } = await keptRun(program_hash);
  const stopped = [...variant.stopped, { which, line: line ?? 0, at: stopped_at ?? undefined, by }];
  const rest = { ...variant, stopped };
  const { programs } = await programsOf(db, id, order.revision, from.page, signal, rest);
  const [program] = programs;
  if (!program) throw new BenchProblem('Nothing is left of this run.');
  const { seam, settings } = await keptRun(program.hash);
  return { checked: await checked(bench_id, program.hash, from), seam, notes: settings.notes ?? [] };
}

/** As `checkRun`, for the very program of a run that broke off, whatever became of its job since. */
export async function checkBroken(db: Kysely<Tables>, id: string, run: string, from: From): Promise<Checked> {
  const { program_hash, bench_id } = await brokenRun(db, id, run);
  return checked(bench_id, program_hash, from);
}

async function checked(bench: string, hash: string, from: From): Promise<Checked> {
  const { order } = await keptRun(hash);
  const { checked } = await tellRunner(bench, { command: 'check', program: order }, from);
  if (!checked) throw new BenchProblem('The check was overtaken by another; look at its checks again.');
  return checked;
}

/** A run that ended before its program did. @throws {BenchProblem} */
async function brokenRun(db: Kysely<Tables>, id: string, run: string) {
  const broken = await db
    .selectFrom('runs')
    .selectAll()
    .where('id', '=', run)
    .where('job_id', '=', id)
    .where('phase', 'in', ['stopped', 'failed', 'lost'])
    .executeTakeFirst();
  if (!broken) throw new BenchProblem('There is no run to be taken up.', 'nothing-broken');
  if (broken.line_unknown) throw new BenchProblem(REASONS['line-unknown'], 'line-unknown');
  return broken;
}

/**
 * Starts the program that was checked, or takes up a broken run of it. The log has its entry before the machine may
 * move.
 * @throws {BenchProblem} where something keeps it from starting.
 */
export async function startRun(
  db: Kysely<Tables>,
  id: string,
  { hash, token, takeUp }: { hash: string; token: string; takeUp?: { run: string; line?: number } },
  from: From,
): Promise<string> {
  const { order, settings, lines, variant } = await keptRun(hash);
  if (order.jobId !== id)
    throw new BenchProblem('This program was not checked on this bench; look at its checks first.', 'unchecked');
  if (!takeUp && (await openJob(db, id)).revision !== order.revision)
    throw new BenchProblem(
      'Something has changed since this program was checked; look at its checks again.',
      'check-stale',
    );
  const run = randomUUID();
  let command: Parameters<typeof tellRunner>[1] = { command: 'run', id: run, token, hash };
  const broken = takeUp && (await brokenRun(db, id, takeUp.run));
  if (broken) {
    const finishes =
      takeUp.line === undefined ? await isLeftOf(broken, { order, variant }) : broken.program_hash === hash;
    if (!finishes)
      throw new BenchProblem(
        'This program is not the one of that run; check what is to be taken up once more.',
        'other-program',
      );
  }
  if (broken && takeUp.line !== undefined) {
    command = {
      command: 'take-up',
      id: run,
      token,
      hash,
      broken: broken.id,
      acknowledged: broken.line ?? 0,
      line: takeUp.line,
    };
  }
  await db
    .insertInto('runs')
    .values({
      id: run,
      job_id: id,
      program_hash: hash,
      bench: order.bench.name,
      bench_id: order.bench.id,
      phase: 'running',
      planned_minutes: order.plannedMinutes,
      settings: JSON.stringify(settings),
      ended: null,
      why: null,
      minutes: null,
      lines,
      from_line: takeUp?.line ?? null,
      takes_up: takeUp?.run ?? null,
      operator: from.name,
    })
    .execute();
  try {
    await tellRunner(order.bench.id, command, from);
  } catch (error) {
    // What got no answer may have begun: the runner's journal will say.
    if (!(error instanceof RunnerAbsent)) await db.deleteFrom('runs').where('id', '=', run).execute();
    throw error;
  }
  return run;
}

/** Whether a program was made of what a broken run had left: its stops and this last one, at the place where it stopped. */
async function isLeftOf(
  broken: Awaited<ReturnType<typeof brokenRun>>,
  { order, variant }: Pick<Awaited<ReturnType<typeof keptRun>>, 'order' | 'variant'>,
): Promise<boolean> {
  const before = await keptRun(broken.program_hash);
  const last = variant.stopped.at(-1);
  return (
    order.revision === before.order.revision &&
    JSON.stringify(variant.stopped.slice(0, -1)) === JSON.stringify(before.variant.stopped) &&
    last?.which === before.which &&
    last.line === (broken.line ?? 0) &&
    last.at?.x === broken.stopped_at?.x &&
    last.at?.y === broken.stopped_at?.y
  );
}

export interface RunRow {
  id: string;
  phase: string;
  why: string | null;
  bench: string;
  operator: string;
  plannedMinutes: number;
  minutes: number | null;
  waited: number | null;
  /** The last line made, of how many; the line it began at. */
  line: number | null;
  /** Nobody knows whether it was that line. */
  lineUnknown: boolean;
  lines: number;
  fromLine: number | null;
  takesUp: string | null;
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
    .select(['programs.name as program', 'programs.revision_id as revision', 'programs.cuts as cuts'])
    .where('runs.job_id', '=', id)
    .orderBy('runs.started', 'desc')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    phase: row.phase,
    why: row.why,
    bench: row.bench,
    operator: row.operator,
    plannedMinutes: row.planned_minutes,
    minutes: row.minutes,
    waited: row.waited,
    line: row.line,
    lineUnknown: row.line_unknown,
    lines: row.lines ?? row.cuts.at(-1)?.to ?? 0,
    fromLine: row.from_line,
    takesUp: row.takes_up,
    settings: row.settings,
    note: row.note,
    started: row.started.toISOString(),
    ended: row.ended?.toISOString() ?? null,
    hash: row.program_hash,
    program: row.program,
    revision: row.revision,
  }));
}

/** How many runs a job has had, dry ones left out. */
export async function countRuns(db: Kysely<Tables>, id: string): Promise<number> {
  const { n } = await db
    .selectFrom('runs')
    .select((eb) => eb.fn.countAll<string>().as('n'))
    .where('job_id', '=', id)
    .where(NOT_DRY)
    .executeTakeFirstOrThrow();
  return Number(n);
}

/** Keeps a note with a run; false where there is no such run. */
export async function noteRun(db: Kysely<Tables>, run: string, note: string): Promise<boolean> {
  const done = await db.updateTable('runs').set({ note }).where('id', '=', run).executeTakeFirst();
  return done.numUpdatedRows > 0n;
}

/** Writes into the log how runs ended, from each runner's journal; what was read is marked, so nothing counts twice. */
export async function syncRuns(db: Kysely<Tables>): Promise<void> {
  const found = await Promise.allSettled(linkedBenches().map((bench) => syncRunsOf(db, bench)));
  const failed = found.find((one) => one.status === 'rejected');
  if (failed) throw failed.reason as Error;
}

async function syncRunsOf(db: Kysely<Tables>, bench: string): Promise<void> {
  const name = `journal/${bench}`;
  const mark = await db.selectFrom('marks').select('value').where('name', '=', name).executeTakeFirst();
  const { next, begun, ends } = await runEnds(bench, Number(mark?.value ?? 0));
  if (next !== Number(mark?.value ?? 0)) await enterEnds(db, name, next, ends);
  await endThoseNeverBegun(db, bench, begun);
}

async function enterEnds(
  db: Kysely<Tables>,
  name: string,
  next: number,
  ends: Awaited<ReturnType<typeof runEnds>>['ends'],
): Promise<void> {
  await db.transaction().execute(async (t) => {
    for (const { id, phase, why, minutes, planned, waited, line, lineUnknown, stopped, at } of ends)
      await t
        .updateTable('runs')
        .set({
          phase,
          why: why ?? null,
          minutes,
          ...(planned !== undefined && { planned_minutes: planned }),
          waited,
          line,
          line_unknown: lineUnknown === true,
          stopped_at: stopped ? JSON.stringify(stopped) : null,
          ended: new Date(at),
        })
        .where('id', '=', id)
        .execute();
    await t
      .insertInto('marks')
      .values({ name, value: String(next) })
      .onConflict((c) => c.column('name').doUpdateSet({ value: String(next) }))
      .execute();
  });
}

/** Runs that have an entry but never reached the runner: the way to it broke in between, and nothing moved. */
async function endThoseNeverBegun(db: Kysely<Tables>, bench: string, begun: readonly string[]): Promise<void> {
  let open = db
    .updateTable('runs')
    .set({
      phase: 'failed',
      why: 'The run did not reach the bench; nothing moved.',
      minutes: 0,
      line: 0,
      ended: new Date(),
    })
    .where('phase', '=', 'running')
    .where('bench_id', '=', bench)
    .where('started', '<', new Date(Date.now() - NEVER_BEGUN_AFTER));
  if (begun.length > 0) open = open.where('id', 'not in', begun);
  await open.execute();
}

/** A start is answered within this, ms, or it was never heard. */
const NEVER_BEGUN_AFTER = 30_000;
