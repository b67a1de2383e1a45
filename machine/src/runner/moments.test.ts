import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import { basisOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';
import { truthOf } from './zero.ts';

/**
 * Random moments: a task is begun, and at some moment something comes between. `KERBE_MOMENTS=500` walks more of them,
 * `KERBE_SEED` begins elsewhere; a seed that fails is printed with its task, moment and interruption.
 */
const MOMENTS = Number(process.env.KERBE_MOMENTS ?? 40);
const FIRST = Number(process.env.KERBE_SEED ?? 1);

const TASKS = [
  'home',
  'step',
  'jog',
  'zero',
  'nudge',
  'go-to-zero',
  'measure',
  'run',
  'run',
  'run',
  'take-up',
] as const;
const BETWEEN = ['stop', 'hold', 'page gone', 'link cut', 'unheard', 'emergency', 'switched off'] as const;

let bench: TestBench;
afterEach(() => {
  bench?.end();
  vi.restoreAllMocks();
});

function randoms(seed: number) {
  let s = seed * 2654435761;
  const next = () => {
    s = (Math.imul(s ^ (s >>> 15), 2246822519) + 0x9e3779b9) | 0;
    return ((s ^ (s >>> 13)) >>> 0) / 4294967296;
  };
  for (let k = 0; k < 5; k++) next();
  return { next, one: <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)] };
}

const place = () => bench.router.state().machine;
const still = async (milliseconds: number, what: string) => {
  const before = place();
  await bench.pass(milliseconds);
  expect(place(), what).toEqual(before);
};

/** Begins a task; returns the longest it may take, ms, for choosing a moment. */
async function begin(
  task: (typeof TASKS)[number],
  job: Job,
  order: ReturnType<typeof ordersOf>[number],
): Promise<number> {
  const basis = basisOf('job', job);
  switch (task) {
    case 'home':
      await bench.tell({ command: 'home' });
      return 2500;
    case 'step':
      await bench.tell({ command: 'step', axis: 'y', by: 80, feed: 3000 });
      return 400;
    case 'jog':
      for (let k = 0; k < 6; k++) {
        await bench.tell({ command: 'jog', press: 'press', on: true, x: 0, y: 1, z: 0, feed: 2000 });
        await bench.pass(20);
      }
      return 100;
    case 'zero':
      await bench.overPlate('corner');
      await bench.tell({ command: 'zero', method: 'corner', corner: 'lower-left', basis });
      return 5000;
    case 'nudge':
      await bench.tell({ command: 'nudge-zero', z: 0.05 });
      return 60;
    case 'go-to-zero':
      await bench.tell({ command: 'go-to-zero', basis, lift: 16 });
      return 1500;
    case 'measure':
      await bench.tell({ command: 'measure' });
      return 5000;
    case 'run':
      await bench.run(order);
      return 28_000;
    case 'take-up':
      await bench.tell({
        command: 'take-up',
        id: 'again',
        ...(await bench.check(order)),
        broken: 'run-0',
        acknowledged: 600,
        line: 400,
      });
      return 4000;
  }
}

async function moment(seed: number): Promise<string> {
  const { next, one } = randoms(seed);
  const { job, result } = await demoJob('comet-marker');
  const faults = vi.spyOn(console, 'error').mockImplementation(() => {});
  bench = new TestBench({ seed, rate: 5 });
  const [order] = ordersOf(bench, job, result);
  await bench.setUp(job, 'v90');
  const task = one(TASKS);
  const between = one(BETWEEN);
  const longest = await begin(task, job, order);
  await bench.pass(Math.floor(next() * longest));
  if (task === 'jog' && between === 'hold')
    await bench.tell({ command: 'jog', press: 'press', on: true, x: 0, y: 1, z: 0, feed: 2000 }).catch(() => {});
  const state = bench.state.bench;
  const inCut = state === 'running' && bench.router.state().spindle > 0;
  const before = bench.router.state();
  const name = `seed ${seed}: ${task}, ${between} while ${state}, line ${bench.state.run?.line ?? '-'}`;

  switch (between) {
    case 'stop': {
      await bench.tell({ command: 'stop' });
      await bench.pass(4000);
      expect(['ready', 'unhomed', 'emergency', 'alarm'], name).toContain(bench.state.bench);
      await still(3000, name);
      expect(bench.router.state().spindle, name).toBe(0);
      if (inCut) expect(place().z, name).toBe(0);
      // Down only by what it takes to stand.
      else expect(place().z, name).toBeGreaterThan(before.machine.z - 6);
      break;
    }
    case 'hold': {
      await bench.tell({ command: 'hold' });
      await bench.pass(400);
      expect(bench.state.bench, name).toMatch(/^held:|^changing|^asking/);
      await still(3000, name);
      await bench.tell({ command: 'resume' }).catch(() => {});
      await bench.pass(200);
      expect(bench.state.bench, name).not.toMatch(/^held:/);
      break;
    }
    case 'page gone':
      bench.runner.seen('page-1', true);
      bench.runner.seen('page-1', false);
      // A single step is bounded, and goes to its end.
      if (state !== 'jogging' || task !== 'jog') break;
      await bench.pass(250);
      await still(2000, name);
      break;
    case 'link cut': {
      bench.cut();
      await bench.pass(1500);
      await still(3000, name);
      expect(bench.state.bench, name).toBe('lost');
      expect(
        bench.state.zero?.xy?.void ?? bench.state.zero?.z?.void ?? (task === 'zero' ? 'link-lost' : undefined),
        name,
      ).toBe('link-lost');
      await bench.connect(job);
      await still(3000, `${name}, linked again`);
      expect(['left', 'ready', 'unhomed'], name).toContain(bench.state.bench);
      if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
      await bench.pass(4000);
      await still(1000, name);
      expect(bench.router.state().spindle, name).toBe(0);
      break;
    }
    case 'unheard': {
      bench.mute = true;
      await bench.pass(2600);
      const held = bench.router.state();
      // Whatever was on is held; what had ended by itself has ended.
      expect(['held', 'idle', 'unhomed'], name).toContain(held.word);
      await still(10_000, name);
      await bench.pass(30_000);
      expect(bench.router.state().spindle, name).toBe(0);
      await still(3000, name);
      break;
    }
    case 'emergency': {
      bench.hand({ hand: 'emergency', pressed: true });
      await bench.pass(500);
      await still(3000, name);
      expect(['emergency', 'changing-safe'], name).toContain(bench.state.bench);
      expect(bench.router.state().spindle, name).toBe(0);
      const why = bench.state.zero?.z?.void;
      if (why) expect(truthOf(why).z, name).not.toBe('kept');
      else expect(bench.state.zero?.z, name).toBeUndefined();
      bench.hand({ hand: 'emergency', pressed: false });
      await still(2000, `${name}, released`);
      expect(['alarm', 'changing-released'], name).toContain(bench.state.bench);
      await bench.tell({ command: 'clear' });
      await bench.pass(300);
      await still(2000, `${name}, cleared`);
      break;
    }
    case 'switched off': {
      bench.hand({ hand: 'power' });
      await bench.pass(1500);
      await still(3000, name);
      expect(bench.router.state().spindle, name).toBe(0);
      expect(bench.state.zero?.xy?.void ?? 'unset', name).not.toBe(undefined);
      break;
    }
  }
  expect(faults.mock.calls, name).toEqual([]);
  // Nobody has driven it into anything.
  expect(bench.router.alarm ?? '', name).not.toMatch(/driven|closed before|clip still/);
  return name;
}

describe('at any moment', () => {
  test.each(Array.from({ length: MOMENTS }, (_, k) => FIRST + k))('seed %i', async (seed) => {
    const name = await moment(seed);
    if (process.env.KERBE_MOMENTS) console.log(name);
  });
});
