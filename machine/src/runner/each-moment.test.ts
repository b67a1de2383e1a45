import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';
import { compare, movesOnSheet, watchZero, type ZeroErrors, zeroIsRight } from './made-piece-for-tests.ts';
import { basisOf } from './of-job.ts';
import type { PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';
import { type AnyBench, dice, jobFor, lit, MACHINES, type MachineName, setUpBench } from './three-benches-for-tests.ts';

/**
 * Every moment of work at a bench, broken into at a time by chance. Promises held in each: nothing is driven into anything;
 * Stop leaves everything standing and off, and voids what it has to; Hold holds, and what goes on after it ends as if
 * nothing had been; a machine linked again is not `ready` while it is at something; Kerbe finds no fault of its own.
 *
 * `KERBE_EACH=100` tries so many of each; a failure names its seed, `KERBE_SEED` begins there.
 */
const EACH = Number(process.env.KERBE_EACH ?? 1);
const FIRST = Number(process.env.KERBE_SEED ?? 1);
const seeds = Array.from({ length: EACH }, (_, k) => FIRST + k);

let bench: AnyBench;
let faults: { mock: { calls: unknown[][] } };
afterEach(() => {
  bench?.end();
  vi.restoreAllMocks();
});

const at = () => bench.machine.state().machine;
const resting = () => ['ready', 'unhomed', 'off', 'alarm', 'emergency'].includes(bench.state.bench);

async function set(machine: MachineName, seed: number, rate = 5) {
  await jobFor(machine);
  faults = vi.spyOn(console, 'error').mockImplementation(() => {});
  const made = await setUpBench(machine, seed, rate);
  ({ bench } = made);
  return { ...made, next: dice(seed) };
}

/** Nothing moves, nothing is on, and no fault of ours was told. */
async function rests(what: string, milliseconds = 1500) {
  // A spindle that was switched off runs down.
  await bench.until(() => !lit(bench), `${what}: everything to be off`, 5);
  const before = at();
  await bench.pass(milliseconds);
  expect(at(), what).toEqual(before);
  expect(lit(bench), what).toBe(false);
  expect(faults.mock.calls, what).toEqual([]);
  expect(bench.machine.alarm ?? '', what).not.toMatch(/driven|closed before|clip still/);
}

type Break = 'stop' | 'hold' | 'cut' | 'unheard' | 'emergency';
const BREAKS: readonly Break[] = ['stop', 'hold', 'cut', 'unheard', 'emergency'];

/** Breaks into what is on. @returns whether it went on after that. */
async function breakInto(how: Break, job: Job, name: string): Promise<boolean> {
  switch (how) {
    case 'stop':
      await bench.tell({ command: 'stop' });
      await bench.until(resting, `${name}: it to stand`, 40);
      return false;
    case 'hold': {
      await bench.tell({ command: 'hold' });
      await bench.pass(500);
      const before = at();
      await bench.pass(1500);
      if (bench.state.bench.startsWith('held:')) expect(at(), name).toEqual(before);
      try {
        await bench.tell({ command: 'resume' });
        return true;
      } catch (error) {
        // What an arc was cutting is not gone on with.
        expect((error as { reason: string }).reason, name).toMatch(/arc-out|not-held/);
        await bench.tell({ command: 'stop' });
        await bench.until(resting, `${name}: it to stand`, 40);
        return false;
      }
    }
    case 'cut':
      bench.cut();
      await bench.pass(1500);
      expect(bench.state.bench, name).toBe('lost');
      await bench.connect(job);
      if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
      await bench.until(resting, `${name}: it to stand`, 40);
      return false;
    case 'unheard':
      bench.mute = true;
      await bench.pass(30_000);
      expect(lit(bench), name).toBe(false);
      bench.mute = false;
      await bench.until(() => bench.state.bench === 'lost' || resting(), `${name}: the loss`, 10);
      bench.cut();
      await bench.connect(job);
      if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
      await bench.until(resting, `${name}: it to stand`, 40);
      return false;
    case 'emergency':
      bench.hand({ hand: 'emergency', pressed: true } as never);
      await bench.pass(300);
      expect(lit(bench), name).toBe(false);
      bench.hand({ hand: 'emergency', pressed: false } as never);
      await bench.pass(300);
      await bench.tell({ command: 'clear' });
      await bench.until(resting, `${name}: it to stand`, 10);
      return false;
  }
}

const one = <T>(of: readonly T[], next: () => number): T => of[Math.floor(next() * of.length)];

/** What is begun, and how long it may take until it has ended by itself, ms. */
interface Task {
  machine: MachineName;
  begins: (job: Job) => Promise<void>;
  takes: number;
  /** What has to be true where it came to its end. */
  ended?: (job: Job) => void;
}

const router = () => bench as TestBench;
const plasma = () => bench as PlasmaBenchForTests;
/** The height of zero is true to the stock that really lies there. */
const trueHeight = () => {
  const look = router().router.look() as { piece: { top: number }; tip: { z: number } };
  const { z } = bench.state.origin!;
  const { length } = router().router.bit!;
  const thick = 9;
  expect(z - length - (look.piece.top - thick)).toBeCloseTo(0, 1);
};

const TASKS: Record<string, Task> = {
  'homing a router': {
    machine: 'router',
    begins: () => bench.tell({ command: 'home' }),
    takes: 3000,
  },
  'homing a plasma table': { machine: 'plasma', begins: () => bench.tell({ command: 'home' }), takes: 4000 },
  'homing a laser': { machine: 'laser', begins: () => bench.tell({ command: 'home' }), takes: 3000 },
  'feeling for the plate': {
    machine: 'router',
    begins: async (job) => {
      await router().overPlate('corner');
      await bench.tell({ command: 'zero', method: 'corner', corner: 'lower-left', basis: basisOf('job', job) });
    },
    takes: 6000,
    ended: trueHeight,
  },
  'measuring a bit': {
    machine: 'router',
    begins: () => bench.tell({ command: 'measure' }),
    takes: 6000,
    ended: trueHeight,
  },
  'feeling for the sheet': {
    machine: 'plasma',
    begins: async (job) => {
      await plasma().pointAt(40 + 45, 40);
      await bench.tell({ command: 'feel-sheet', basis: basisOf('job', job) });
    },
    takes: 3000,
  },
  'a spindle that starts': {
    machine: 'router',
    begins: async (job) => {
      const { result } = await jobFor('router');
      await bench.run(bench.order(job, result));
    },
    // The start, its dwell, and the way to the first cut.
    takes: 1400,
  },
  'an arc that strikes': {
    machine: 'plasma',
    begins: async (job) => {
      const { result } = await jobFor('plasma');
      await bench.run(bench.order(job, result));
      await bench.until(() => (bench as PlasmaBenchForTests).machine.state().arc === 'igniting', 'the arc', 30);
    },
    takes: 400,
  },
};

describe.each(Object.entries(TASKS))('%s', (name, { machine, begins, takes, ended }) => {
  test.each(seeds)('broken into, seed %i', async (seed) => {
    const { job, next, again } = await set(machine, seed);
    const how = one(BREAKS, next);
    await begins(job);
    await bench.pass(next() * takes);
    const state = bench.state.bench;
    const what = `seed ${seed}: ${name}, ${how} while ${state}`;
    const on = await breakInto(how, job, what);
    if (on) {
      await bench.until(() => resting() || bench.state.bench === 'running', `${what}: its end`, 120);
      if (bench.state.bench === 'ready') ended?.(job);
      if (bench.state.bench === 'running') await bench.tell({ command: 'stop' });
      await bench.until(resting, `${what}: it to stand`, 40);
    }
    await rests(what);
    // And everything can be begun anew.
    if (bench.state.bench === 'alarm') await bench.tell({ command: 'clear' });
    await bench.pass(500);
    if (bench.state.bench === 'unhomed') {
      await bench.tell({ command: 'home' });
      await bench.until(() => bench.state.bench === 'ready', `${what}: home again`, 60);
    }
    // Out of the way by hand, before other stock is laid there.
    if (machine === 'router') await router().step('z', -at().z);
    await again();
    expect(bench.state.bench, what).toBe('ready');
    expect(bench.state.zero?.z?.void, what).toBeUndefined();
    await rests(what, 300);
  });
});

describe.each(MACHINES)('a hand reaches in at the %s', (machine) => {
  test.each(seeds)('in the midst of a run, seed %i', async (seed) => {
    const { order, next } = await set(machine, seed);
    await bench.run(order);
    await bench.until(() => lit(bench), 'the tool to be on', 60);
    await bench.pass(next() * 4000);
    const hands: Record<MachineName, { hand: string; [how: string]: unknown }[]> = {
      router: [
        { hand: 'bit', ...order.cuts[0].bit },
        { hand: 'spindle', turns: 0 },
      ],
      plasma: [{ hand: 'blow' }, { hand: 'clamp', on: false }],
      laser: [
        { hand: 'lid', open: true },
        { hand: 'key', on: false },
      ],
    };
    const hand = one(hands[machine], next);
    const what = `seed ${seed}: ${hand.hand} while ${bench.state.bench}, line ${bench.state.run?.line}`;
    bench.hand(hand as never);
    await bench.pass(1500);
    const { word, held } = bench.machine.state();
    // It is an alarm, it holds, or what was on has been without that hand anyway.
    if (!held && word !== 'alarm') expect(bench.machine.state().word, what).toMatch(/moving|idle|probing|waiting/);
    await bench.tell({ command: 'stop' });
    await bench.until(resting, `${what}: it to stand`, 60);
    expect(lit(bench), what).toBe(false);
    const before = at();
    await bench.pass(1500);
    expect(at(), what).toEqual(before);
    expect(faults.mock.calls, what).toEqual([]);
  });
});

describe.each(MACHINES)('bytes on the way to and from the %s', (machine) => {
  test.each(seeds)('a line is refused or an error told in mid-stream, seed %i', async (seed) => {
    const { order, next } = await set(machine, seed);
    const which = 2 + Math.floor(next() * 300);
    const refused = next() < 0.6;
    let sent = 0;
    bench.told = (line) =>
      line.startsWith(':') || ++sent !== which || !refused
        ? line
        : one(['G1 X1 X2', 'G41.7', 'M17', 'G2 X0 Y0 R0.001'], next);
    if (!refused) {
      let said = 0;
      bench.said = (text) => (++said === which ? '{"error":"The air pressure is low."}' : text);
    }
    await bench.run(order);
    await bench.until(
      () => !['running', 'run-measuring'].includes(bench.state.bench) || sent > which + 2500,
      'what comes of it',
      300,
    );
    const what = `seed ${seed}: line ${which} ${refused ? 'refused' : 'followed by an error'}, ${bench.state.bench}`;
    if (refused) {
      await bench.until(() => bench.ended.length > 0 || bench.state.bench === 'changing', `${what}: the end`, 60);
      if (bench.ended.length > 0) expect(bench.ended[0].phase, what).toBe('failed');
    }
    if (bench.state.bench !== 'off') await bench.tell({ command: 'stop' });
    await bench.until(resting, `${what}: it to stand`, 60);
    await rests(what);
  });

  test.each(seeds)('a byte is lost or flipped, seed %i: never a fault of ours, and Stop ends it', async (seed) => {
    const { order, next, job } = await set(machine, seed);
    const which = 2 + Math.floor(next() * 400);
    const lose = next() < 0.5;
    const back = next() < 0.4;
    const spoilt = (line: string) => {
      const k = Math.floor(next() * line.length);
      return lose
        ? line.slice(0, k) + line.slice(k + 1)
        : line.slice(0, k) +
            String.fromCharCode(line.charCodeAt(k) ^ (1 << Math.floor(next() * 7))) +
            line.slice(k + 1);
    };
    let count = 0;
    if (back) bench.said = (text) => (++count === which ? spoilt(text) : text);
    else bench.told = (line) => (++count === which ? spoilt(line) : line);
    await bench.run(order);
    const moving = () => ['running', 'run-measuring', 'run-touching'].includes(bench.state.bench);
    await bench.until(() => !moving() || count > which + 3000, 'what comes of it', 300);
    const what = `seed ${seed}: ${lose ? 'lost' : 'flipped'} in ${back ? 'what it says' : 'what it is told'}, ${bench.state.bench}`;
    if (['lost', 'off'].includes(bench.state.bench)) {
      await bench.pass(3000);
      await bench.connect(job);
    }
    await bench.tell({ command: 'stop' }).catch(() => {});
    await bench.until(resting, `${what}: it to stand`, 60);
    await bench.pass(4000);
    expect(lit(bench), what).toBe(false);
    const before = at();
    await bench.pass(1500);
    expect(at(), what).toEqual(before);
    expect(faults.mock.calls, what).toEqual([]);
  });
});

describe('a link lost in mid-cut, and the run taken up', () => {
  test.each(seeds)('router, seed %i: a whole piece', async (seed) => {
    const { job, order, next } = await set('router', seed);
    const { result } = await jobFor('router');
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    const watch = watchZero(router(), job, errors, bits);
    await bench.run(order);
    const change = order.cuts.find(({ bit }) => bit.id !== order.cuts[0].bit.id)!.from;
    const until = 5 + next() * (change - 60);
    await bench.until(() => watch() || bench.state.run!.line >= until, 'a moment in the cut', 600);
    await bench.pass(next() * 60);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const [{ line, phase }] = bench.ended;
    expect(phase).toBe('lost');
    // The stock stays where it lies: only zero is found again.
    const first = router().router.fitted;
    router().hand({ hand: 'clip', on: false });
    await router().overPlate('corner');
    await router().zero(job);
    await router().clearPlate();
    expect(router().router.fitted).toBe(first);
    errors.clear();
    await bench.tell({
      command: 'take-up',
      id: 'again',
      ...(await bench.check(order)),
      broken: 'run-1',
      acknowledged: line,
      line: Math.max(0, line - 4),
    });
    while (bench.ended.length === 1) {
      await bench.until(
        () => watch() || bench.state.bench === 'changing' || bench.ended.length > 1,
        `seed ${seed}: the rest`,
      );
      if (bench.state.bench !== 'changing') continue;
      bench.hand({ hand: 'bit', ...bench.state.run!.bit! } as never);
      await bench.tell({ command: 'bit-changed' });
    }
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    zeroIsRight(errors);
    compare(job, result, movesOnSheet(router(), job, errors, bits), 4000);
    expect(faults.mock.calls).toEqual([]);
  });

  test.each(seeds)('laser, seed %i: the rest is burnt, nothing at rest', async (seed) => {
    const { job, order, next } = await set('laser', seed, 20);
    await bench.run(order);
    const until = next() * 0.9 * bench.state.run!.lines;
    await bench.until(() => bench.state.run!.line >= until, 'a moment in the run', 600);
    await bench.pass(next() * 100);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const { line } = bench.ended[0];
    const laser = bench as import('./laser-bench-for-tests.ts').LaserBenchForTests;
    await laser.zero(job);
    await laser.tickAll();
    await bench.tell({
      command: 'take-up',
      id: 'again',
      ...(await bench.check(order)),
      broken: 'run-1',
      acknowledged: line,
      line,
    });
    await bench.until(() => bench.ended.length > 1, `seed ${seed}: the rest`);
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    expect(laser.machine.damage.firedAtRest).toBe(0);
    expect(faults.mock.calls).toEqual([]);
  });

  test.each(seeds)('plasma, seed %i: what is left is cut by a program of its own, nothing damaged', async (seed) => {
    const { job, order, next } = await set('plasma', seed);
    const { result } = await jobFor('plasma');
    await bench.run(order);
    const until = next() * 0.95 * bench.state.run!.lines;
    await bench.until(
      () => bench.ended.length > 0 || (bench.state.run!.line >= until && lit(bench)),
      'a moment in the cut',
      600,
    );
    if (bench.ended.length > 0) return;
    await bench.pass(next() * 60);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const [{ line, at: where }] = bench.ended;
    await plasma().zero(job);
    await plasma().tickAll();
    let rest;
    try {
      rest = bench.order(job, result, { stopped: [{ which: 0, line, at: where, by: 'next' }] });
    } catch (error) {
      // Of the last part nothing more can be cut.
      expect((error as Error).name).toBe('NoVariant');
      return;
    }
    await bench.run(rest, 'again');
    await bench.until(() => bench.ended.length > 1, `seed ${seed}: the rest`);
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    expect(plasma().machine.damage, `seed ${seed}`).toMatchObject({
      nozzleTouched: 0,
      piercedLow: 0,
      ranIntoTipped: 0,
    });
    expect(faults.mock.calls).toEqual([]);
  });
});

describe('what is changed after zero', () => {
  test.each(seeds)('the unit of the job, seed %i: the same piece', async (seed) => {
    const next = dice(seed);
    const { job, result } = await demoJob('comet-marker');
    const other = { ...structuredClone(job), unit: job.unit === 'mm' ? ('in' as const) : ('mm' as const) };
    const dialect = one(['plain', 'lines-only', 'numbered'], next);
    for (const each of [job, other]) Object.assign(each.bench, { dialect });
    faults = vi.spyOn(console, 'error').mockImplementation(() => {});
    bench = new TestBench({ rate: 30, seed });
    await router().setUp(job, 'v90');
    const [order] = ordersOf(bench, other, result);
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    const watch = watchZero(router(), other, errors, bits);
    await bench.run(order);
    while (bench.ended.length === 0) {
      await bench.until(() => watch() || bench.state.bench === 'changing' || bench.ended.length > 0, 'the run');
      if (bench.state.bench !== 'changing') continue;
      bench.hand({ hand: 'bit', ...bench.state.run!.bit! } as never);
      await bench.tell({ command: 'bit-changed' });
    }
    expect(bench.ended[0]).toMatchObject({ phase: 'done' });
    zeroIsRight(errors);
    compare(other, result, movesOnSheet(router(), other, errors, bits), 4000);
  });
});

describe('a long program', () => {
  const LINES = Number(process.env.KERBE_LONG ?? 6_000);
  test.each(Array.from({ length: process.env.KERBE_LONG ? 3 : 1 }, (_, k) => FIRST + k))(
    `of ${LINES} lines, seed %i: every line is made, and its end is its end`,
    async (seed) => {
      const { order, next } = await set('router', seed, 30);
      const lines = ['G17 G21 G90 G94 G54', 'M3 S18000', 'G4 P3', 'G0 X10 Y10', 'G1 Z12 F600'];
      for (let k = lines.length; k < LINES - 2; k++)
        lines.push(`G1 X${(10 + next() * 60).toFixed(3)} Y${(10 + next() * 4).toFixed(3)} F2400`);
      lines.push('M5', 'M30');
      const text = lines.join('\n') + '\n';
      const hash = bench.programs.keep(text);
      const long = { ...order, hash, cuts: [{ ...order.cuts[0], from: 0, to: LINES }] };
      await bench.run(long);
      await bench.until(() => bench.ended.length > 0, 'the end', 200_000);
      expect(bench.ended[0]).toMatchObject({ phase: 'done', line: LINES });
      expect(bench.machine.state().done).toBeGreaterThanOrEqual(LINES);
      await rests('after it');
    },
  );
});
