import { describe, expect, test } from 'vitest';
import type { BenchFeed } from './bench-feed.svelte';
import type { JobSession } from './job-session.svelte';
import { routeStates } from './route-states.ts';

interface Given {
  artwork?: unknown[];
  cuts?: unknown[];
  remarks?: { stop: string; weight: 'wrong' | 'advice' }[];
  current?: boolean;
  cancelled?: boolean;
  link?: string;
  bench?: Record<string, unknown>;
  runs?: number;
  started?: number;
}
const STOCK = {
  material: 'oak',
  length: 100,
  width: 50,
  corners: [10, 10.2, 10.1, 9.9],
  zeroXY: 'lower-left',
  zeroZ: 'stock',
  holdDown: 'clamps',
};
const PLATE = { thickness: 12, side: 8, size: 40 };
/** A zero of this job, or of another. */
const zero = (job: string, gone?: string) => {
  const basis = {
    job: { id: job, name: '' },
    stock: { material: 'oak', length: 100, width: 50 },
    fixture: 'clamps',
    placeXY: 'lower-left',
    placeZ: 'stock',
    at: { x: 0, y: 0 },
    corners: STOCK.corners,
    plate: PLATE,
  };
  return { xy: { basis, void: gone }, z: { basis, void: gone } };
};
const states = (given: Given = {}) =>
  routeStates(
    {
      id: 'job-1',
      job: {
        name: 'A job',
        artwork: given.artwork ?? [{}],
        cuts: given.cuts ?? [{}],
        stock: STOCK,
        bench: { kind: 'router', link: given.link ?? 'stand-in', plate: PLATE },
      },
      view: { remarks: given.remarks ?? [] },
      current: given.current ?? true,
      cancelled: given.cancelled ?? false,
    } as unknown as JobSession,
    { state: { bench: 'off', ticks: {}, ...given.bench }, started: given.started ?? 0 } as unknown as BenchFeed,
    given.runs ?? 0,
  );

describe('what the route says of each stop', () => {
  test('a job that is whole and fits', () => {
    expect(states()).toMatchObject({
      artwork: { word: 'ready' },
      stock: { word: 'ready' },
      cuts: { word: 'ready' },
      proof: { word: 'up to date' },
      'set-up': { word: 'not begun' },
      run: { word: 'not begun' },
      log: { word: 'no runs yet' },
    });
  });
  test('an empty one asks for artwork and cuts', () => {
    expect(states({ artwork: [], cuts: [] })).toMatchObject({
      artwork: { word: 'empty', asks: true },
      cuts: { word: 'none yet', asks: true },
      proof: { word: 'nothing yet' },
    });
  });
  test('remarks are counted at their stop, and only what must be mended asks', () => {
    const remarks = [
      { stop: 'cuts', weight: 'advice' as const },
      { stop: 'stock', weight: 'wrong' as const },
      { stop: 'stock', weight: 'advice' as const },
    ];
    expect(states({ remarks })).toMatchObject({
      cuts: { word: '1 remark', asks: false },
      stock: { word: '2 remarks', asks: true },
      proof: { word: 'not fit to run', asks: true },
    });
  });
  test('what is not computed yet says so, and what was given up is out of date', () => {
    expect(states({ current: false }).proof).toEqual({ word: 'computing', asks: false });
    expect(states({ current: false, cancelled: true }).proof).toEqual({ word: 'out of date', asks: true });
    expect(states({ current: false }).stock).toEqual({ word: 'computing' });
  });
  test.each([
    [{ bench: 'unhomed' }, { word: 'connected' }],
    [{ bench: 'ready' }, { word: 'homed' }],
    [{ bench: 'ready', zero: zero('job-1') }, { word: 'zero set' }],
    // Of another job: none was ever set for this one.
    [{ bench: 'ready', zero: zero('job-2') }, { word: 'homed' }],
    [
      { bench: 'ready', zero: zero('job-1', 'link-lost') },
      { word: 'zero void', asks: true },
    ],
    [{ bench: 'alarm' }, { word: 'stopped', asks: true }],
    [{ bench: 'emergency' }, { word: 'stopped', asks: true }],
    [{ bench: 'lost' }, { word: 'link lost', asks: true }],
    [{ bench: 'left' }, { word: 'link lost', asks: true }],
  ])('set-up with the bench at %j', (bench, state) => {
    expect(states({ bench })['set-up']).toMatchObject(state);
  });
  test('a bench that is not linked is set up by hand', () => {
    expect(states({ link: 'file' })['set-up']).toEqual({ word: 'by hand' });
  });
  test.each([
    [{ jobId: 'job-1', phase: 'on', line: 505, lines: 1000 }, { word: 'carving, 50 %' }],
    [
      { jobId: 'job-1', phase: 'on', line: 505, lines: 1000, bit: { id: 'e6' } },
      { word: 'change the bit', asks: true },
    ],
    [
      { jobId: 'job-1', phase: 'on', line: 505, lines: 1000, prompt: 'start the spindle' },
      { word: 'waits for you', asks: true },
    ],
    [
      { jobId: 'job-1', phase: 'done', endedAt: 'now', line: 9, lines: 9 },
      { word: 'done', asks: false },
    ],
    [
      { jobId: 'job-1', phase: 'failed', endedAt: 'now', line: 4, lines: 9 },
      { word: 'broken off', asks: true },
    ],
    [
      { jobId: 'job-1', phase: 'lost', endedAt: 'now', line: 4, lines: 9 },
      { word: 'link lost', asks: true },
    ],
    [{ jobId: 'another', phase: 'on', line: 4, lines: 9 }, { word: 'not begun' }],
  ])('a run %j', (run, state) => {
    expect(states({ bench: { bench: 'running', run } }).run).toEqual(state);
  });
  test('a held run asks for someone', () => {
    const run = { jobId: 'job-1', phase: 'on', line: 505, lines: 1000 };
    expect(states({ bench: { bench: 'held:running', run } }).run).toEqual({ word: 'held', asks: true });
  });
  test('the log counts the runs kept and those begun since', () => {
    expect(states({ runs: 1 }).log.word).toBe('1 run');
    expect(states({ runs: 1, started: 2 }).log.word).toBe('3 runs');
  });
});
