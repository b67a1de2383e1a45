import { describe, expect, test } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import {
  at,
  bench,
  endsAfterEach,
  faults,
  one,
  plasma,
  resting,
  rests,
  router,
  seeds,
  set,
} from './at-a-moment-for-tests.ts';
import { basisOf } from './of-job.ts';
import { jobFor, lit, MACHINES, type MachineName } from './three-benches-for-tests.ts';

/**
 * Every moment of work at a bench, broken into at a time by chance. Promises held in each: nothing is driven into anything;
 * Stop leaves everything standing and off, and voids what it has to; Hold holds, and what goes on after it ends as if
 * nothing had been; a machine linked again is not `ready` while it is at something; Kerbe finds no fault of its own.
 *
 * `KERBE_EACH=100` tries so many of each; a failure names its seed, `KERBE_SEED` begins there.
 */
endsAfterEach();

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

/** What is begun, and how long it may take until it has ended by itself, ms. */
interface Task {
  machine: MachineName;
  begins: (job: Job) => Promise<void>;
  takes: number;
  /** What has to be true where it came to its end. */
  ended?: (job: Job) => void;
}

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
      await bench.until(() => plasma().machine.state().arc === 'igniting', 'the arc', 30);
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
    if (machine !== 'laser') await bench.step('z', -at().z);
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
