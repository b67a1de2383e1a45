import { afterEach, describe, expect, test } from 'vitest';
import { type AnyBench, dice, jobFor, lit, MACHINES, type MachineName, setUpBench } from './three-benches-for-tests.ts';

/**
 * Promises held here, for every kind of machine:
 * a link begins with no line made, also where the machine is linked in the midst of something; a count that cannot be right
 * holds the machine, ends the run and voids zero, and no run is taken up from it; a line that is lost on the way is noticed;
 * nothing is done, and no bench ready, while the machine moves or has anything on; Stop ends what is on from any of it.
 *
 * Moments by chance: `KERBE_LINKS=200` tries more of them; a failure names its seed, `KERBE_SEED` begins there.
 */
const LINKS = Number(process.env.KERBE_LINKS ?? 2);
const FIRST = Number(process.env.KERBE_SEED ?? 1);
const seeds = Array.from({ length: LINKS }, (_, k) => FIRST + k);

let bench: AnyBench;
afterEach(() => bench?.end());

const at = () => bench.machine.state().machine;

/** Runs its job up to a moment by chance in the midst of it, most often with the tool on. */
async function inTheMidst(machine: MachineName, seed: number) {
  const next = dice(seed);
  const made = await setUpBench(machine, seed);
  ({ bench } = made);
  await bench.run(made.order);
  const { cuts } = made.order;
  const last = (cuts.find(({ bit }) => bit.id !== cuts[0].bit.id)?.from ?? bench.state.run!.lines) - 1;
  const line = 1 + Math.floor(next() * 0.9 * last);
  await bench.until(() => bench.state.run!.line >= line || bench.ended.length > 0, 'a line in the midst of the run');
  for (let k = 0; k < 100 && !lit(bench); k++) await bench.pass(10);
  await bench.pass(Math.floor(next() * 60));
  return { ...made, next };
}

/** Nothing moves and nothing is on. */
async function rests(what: string) {
  expect(lit(bench), what).toBe(false);
  const before = at();
  await bench.pass(1500);
  expect(at(), what).toEqual(before);
  expect(lit(bench), what).toBe(false);
}

const COUNTED = /"done":(\d+)/g;
/** The machine counts on from another number. */
const counts = (from: (done: number) => number) => (text: string) =>
  text.replace(COUNTED, (_, done: string) => `"done":${from(Number(done))}`);

describe.each(MACHINES)('%s', (machine) => {
  test.each(seeds)(
    'linked again in the midst of a run, seed %i: no line counts as made, and Stop ends it',
    async (seed) => {
      await jobFor(machine);
      const { job, order, again, next } = await inTheMidst(machine, seed);
      const line = bench.state.run!.line;
      bench.cut();
      const off = next() < 0.3 ? 0 : next() * (next() < 0.5 ? 400 : 4000);
      await bench.pass(off);
      const done: number[] = [];
      bench.said = (text) => {
        for (const [, n] of text.matchAll(COUNTED)) done.push(Number(n));
        return text;
      };
      await bench.connect(job);
      const [run] = bench.ended;
      if (run.phase !== 'done') {
        expect(run).toMatchObject({ phase: 'lost', line: expect.any(Number) });
        expect(run.line).toBeGreaterThanOrEqual(line);
        expect(run.line - line).toBeLessThan(250);
        expect(['left', 'ready', 'alarm']).toContain(bench.state.bench);
      }
      await bench.pass(next() * 1500);
      expect(new Set(done), 'lines told as made on a link that has sent none').toEqual(new Set([0]));
      if (bench.state.bench === 'ready') await rests('ready');
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'ready', 'it to stand', 30);
      await rests('after Stop');
      // The next run waits for each of its lines.
      await again();
      await bench.run(order, 'run-2');
      await bench.pass(60);
      expect(bench.ended.length).toBe(1);
      expect(bench.state.run!.line).toBeLessThan(bench.state.run!.lines / 2);
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'ready', 'it to stand', 30);
      await rests('after the second Stop');
    },
  );

  test.each(seeds)(
    'linked to one that tells an old count, seed %i: it is left, and Stop ends it all the same',
    async (seed) => {
      await jobFor(machine);
      const { job, next } = await inTheMidst(machine, seed);
      bench.cut();
      await bench.pass(next() * 3000);
      const old = 1 + Math.floor(next() * 2000);
      bench.said = counts((done) => done + old);
      await bench.connect(job);
      await bench.pass(200);
      expect(bench.state.bench).toBe('left');
      expect(bench.state.problem).toMatch(/more lines than it was sent/);
      expect(bench.state.zero?.xy?.void).toBeDefined();
      for (const command of ['home', 'confirm', 'resume'] as const)
        await expect(bench.tell({ command })).rejects.toMatchObject({ reason: 'left-behind' });
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'off', 'the link to be closed', 60);
      expect(bench.state.problem).toMatch(/count of lines could not be trusted/);
      await bench.pass(4000);
      await rests('after Stop');
      bench.said = (text) => text;
      await bench.connect(job);
      // It may hold still, as whoever left it left it.
      if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'ready', 'it to stand', 30);
      await rests('linked anew');
    },
  );

  test.each(seeds)(
    'its count leaps or falls in a run, seed %i: held, the run ended, its line unknown',
    async (seed) => {
      await jobFor(machine);
      const { next } = await inTheMidst(machine, seed);
      if (bench.ended.length > 0) return;
      const more = next() < 0.5;
      const by = more ? 3000 + Math.floor(next() * 5000) : -1 - Math.floor((next() * bench.state.run!.line) / 2);
      const before = at();
      bench.said = counts((done) => Math.max(0, done + by));
      await bench.until(() => bench.state.bench === 'left', 'it to be left', 2);
      expect(bench.state.problem).toMatch(more ? /more lines than it was sent/ : /backwards/);
      await bench.until(() => bench.ended.length > 0, 'the run to end', 2);
      expect(bench.ended[0]).toMatchObject({ phase: 'failed', lineUnknown: true });
      expect(bench.ended[0].why).toBe(bench.state.problem);
      await bench.pass(300);
      // Held as soon as it can stand.
      expect(bench.machine.state().held).toBeDefined();
      expect(Math.hypot(at().x - before.x, at().y - before.y)).toBeLessThan(120);
      expect(bench.state.zero?.xy?.void).toBe('position-lost');
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'off', 'the link to be closed', 60);
      await bench.pass(4000);
      await rests('after Stop');
    },
  );

  test.each(seeds)('a line is lost on the way, seed %i: it is said within a second of its standing', async (seed) => {
    await jobFor(machine);
    const next = dice(seed);
    const made = await setUpBench(machine, seed);
    ({ bench } = made);
    const which = 1 + Math.floor(next() * 400);
    let sent = 0;
    bench.told = (line) => (line.startsWith(':') || ++sent !== which ? line : undefined);
    await bench.run(made.order);
    let idle = 0;
    for (let k = 0; k < 90_000 && bench.state.bench === 'running'; k++) {
      await bench.pass(10);
      const { word } = bench.machine.state();
      idle = word === 'idle' ? idle + 10 : 0;
      expect(idle, 'so long it stood without being noticed, ms').toBeLessThanOrEqual(1000);
    }
    // What the lost line would have switched on may be missed by the machine itself.
    if (bench.state.bench !== 'left') {
      expect(['alarm', 'held:running']).toContain(bench.state.bench);
      return;
    }
    expect(bench.state.bench).toBe('left');
    expect(bench.state.problem).toMatch(/one was lost on the way/);
    expect(bench.ended[0]).toMatchObject({ phase: 'failed', lineUnknown: true });
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'off', 'the link to be closed', 60);
    await rests('after Stop');
  });
});

test.each(['router'] as const)(
  '%s left alone until it has given up: it cannot be gone on with, and its line is known',
  async (machine) => {
    await jobFor(machine);
    await inTheMidst(machine, 2);
    bench.told = () => undefined;
    // Held after two seconds without a word; given up twenty later.
    await bench.pass(26_000);
    bench.told = (line) => line;
    await bench.pass(500);
    expect(bench.state.bench).toBe('held:running');
    expect(bench.state.machine?.gaveUp).toBe(true);
    const { line } = bench.state.run!;
    await expect(bench.tell({ command: 'resume' })).rejects.toMatchObject({ reason: 'given-up' });
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 30);
    await rests('after Stop');
    expect(bench.ended[0]).toMatchObject({ phase: 'stopped', line });
    expect(bench.ended[0].lineUnknown).toBeUndefined();
    expect(line).toBeLessThan(bench.state.run!.lines);
  },
);
