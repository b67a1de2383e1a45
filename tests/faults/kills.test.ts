import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { JournalRecord } from '../../machine/src/runner/journal.ts';
import { AtTheBench, Answered } from './at-the-bench.ts';
import { random } from './random.ts';

// Each part of the shop is killed at a random moment of a run, or at rest. `./kerbe soak` does it many times.
const ROUNDS = Number(process.env.KERBE_KILLS ?? 3);
const SEED = Number(process.env.KERBE_SEED ?? 1);
const PARTS = ['web', 'database', 'runner', 'standIn'] as const;
const JOB = 'entrance-board';

let bench: AtTheBench;
beforeAll(async () => {
  bench = await AtTheBench.open(SEED);
}, 300_000);
afterAll(() => bench?.close());

const stands = () => bench.stands();

const journal = (): JournalRecord[] =>
  readFileSync(bench.shop.journal, 'utf8')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as JournalRecord);

let revision = '';
let fresh = false;

/** A run that is on, at least `lines` far; sets up where that was lost. */
async function running(lines: number): Promise<string> {
  // A run that was stopped in a bit change has left nobody knowing which bit is in.
  if (!fresh || !(await bench.state()).bit) {
    revision = await bench.setUp(JOB, 'v60');
    fresh = true;
  }
  for (const step of ['eyes', 'hand']) await bench.tell({ command: 'tick', step, on: true, job: JOB });
  const id = await bench.startRun(JOB, revision);
  await bench.when((s) => (s.run?.line ?? 0) >= lines || s.run?.endedAt !== undefined || s.bench === 'changing');
  return id;
}

/** Ends what is on, and has the log agree with the journal. */
async function stopped(id: string, phases: readonly string[]): Promise<void> {
  const [logged] = await bench.eventually(
    () => bench.runs(JOB),
    ([run]) => run?.id === id && run.phase !== 'running',
  );
  expect(phases).toContain(logged.phase);
  const records = journal().filter((record) => record.id === id);
  expect(records[0].phase).toBe('begun');
  const end = records.filter(({ phase }) => phase !== 'begun' && phase !== 'on');
  expect(end).toHaveLength(1);
  expect([logged.phase, logged.line]).toEqual([end[0].phase, end[0].line]);
}

async function killedInRun(part: (typeof PARTS)[number], lines: number): Promise<void> {
  const id = await running(lines);
  if (part === 'runner')
    await bench.eventually(
      async () => journal().some((record) => record.id === id && record.phase === 'on' && (record.line ?? 0) > 0),
      (noted) => noted,
    );
  const before = (await bench.state()).run!;
  const pid = bench.pidOf(part)!;
  process.kill(pid, 'SIGKILL');
  if (part === 'web' || part === 'database') {
    // Others are told that it is away, in a sentence, and the run goes on.
    if (part === 'database') {
      const away = await bench.ask('/api/jobs').catch((error: unknown) => error);
      if (away instanceof Answered && away.status >= 500) expect(away).toMatchObject({ status: 503 });
    }
    await bench.back(part, pid);
    const after = await bench.when((s) => s.run !== undefined);
    expect(after.run!.id).toBe(id);
    expect(after.run!.line).toBeGreaterThanOrEqual(before.line);
    if (!after.run!.endedAt) {
      if (after.bench === 'running')
        await bench.when(
          (s) => s.run!.line > after.run!.line || s.bench === 'changing' || s.run!.endedAt !== undefined,
        );
      await bench.tell({ command: 'stop' });
    }
    await bench.when((s) => s.run!.endedAt !== undefined);
    await bench.when((s) => ['ready', 'unhomed'].includes(s.bench));
    await stopped(id, ['stopped', 'done']);
  } else if (part === 'runner') {
    // The machine holds by itself, two seconds after the last word, and nothing moves it until someone asks.
    await bench.eventually(stands, (still) => still);
    await bench.back(part, pid);
    fresh = false;
    expect(await stands()).toBe(true);
    const [logged] = await bench.eventually(
      () => bench.runs(JOB),
      ([run]) => run?.id === id && run.phase !== 'running',
    );
    if (logged.phase === 'failed') {
      expect(logged.why).toContain('The bench runner ended during this run');
      expect(logged.line).toBeGreaterThan(0);
    }
    await stopped(id, ['failed', 'stopped', 'done']);
    expect(await stands()).toBe(true);
  } else {
    fresh = false;
    const lost = await bench.when((s) => s.run?.endedAt !== undefined);
    expect(['lost', 'done']).toContain(lost.run!.phase);
    expect(lost.zero?.z === undefined || lost.bench === 'lost').toBe(true);
    await stopped(id, ['lost', 'done']);
    await bench.back(part, pid);
    expect(await stands()).toBe(true);
  }
}

async function killedAtRest(part: (typeof PARTS)[number]): Promise<void> {
  if (part === 'runner' || part === 'standIn') fresh = false;
  await bench.kill(part);
  await bench.eventually(
    () => bench.ask('/api/jobs/' + JOB),
    () => true,
    60,
  );
  expect(await stands()).toBe(true);
}

const rng = random(SEED);
test.each(
  Array.from({ length: ROUNDS }, (_, round) => {
    const part = PARTS[round % PARTS.length];
    return { round, part, rest: rng() < 0.15, lines: 60 + Math.floor(rng() * 900) };
  }),
)(
  'round $round: the $part is killed, at line $lines or so (at rest: $rest)',
  async ({ part, rest, lines }) => {
    if (rest) await killedAtRest(part);
    else await killedInRun(part, lines);
  },
  240_000,
);
