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
const states = (given: Given = {}) =>
  routeStates(
    {
      id: 'job-1',
      job: { artwork: given.artwork ?? [{}], cuts: given.cuts ?? [{}], bench: { link: given.link ?? 'stand-in' } },
      view: { remarks: given.remarks ?? [] },
      current: given.current ?? true,
      cancelled: given.cancelled ?? false,
    } as unknown as JobSession,
    { state: { link: 'off', plateSeen: false, ...given.bench }, started: given.started ?? 0 } as unknown as BenchFeed,
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
    [{ link: 'on', machine: { word: 'idle', homed: false } }, { word: 'connected' }],
    [{ link: 'on', machine: { word: 'idle', homed: true } }, { word: 'homed' }],
    [{ link: 'on', machine: { word: 'idle', homed: true }, zero: {} }, { word: 'zero set' }],
    [
      { link: 'on', machine: { word: 'alarm', homed: true } },
      { word: 'stopped', asks: true },
    ],
    [
      { link: 'on', machine: { word: 'emergency', homed: false } },
      { word: 'stopped', asks: true },
    ],
    [{ link: 'lost' }, { word: 'link lost', asks: true }],
  ])('set-up with the bench at %j', (bench, state) => {
    expect(states({ bench })['set-up']).toMatchObject(state);
  });
  test('a bench that is not linked is set up by hand', () => {
    expect(states({ link: 'file' })['set-up']).toEqual({ word: 'by hand' });
  });
  test.each([
    [{ jobId: 'job-1', phase: 'running', line: 505, lines: 1000 }, { word: 'carving, 50 %' }],
    [
      { jobId: 'job-1', phase: 'bit-change', line: 505, lines: 1000 },
      { word: 'change the bit', asks: true },
    ],
    [
      { jobId: 'job-1', phase: 'done', endedAt: 'now', line: 9, lines: 9 },
      { word: 'done', asks: false },
    ],
    [
      { jobId: 'job-1', phase: 'failed', endedAt: 'now', line: 4, lines: 9 },
      { word: 'failed', asks: true },
    ],
    [{ jobId: 'another', phase: 'running', line: 4, lines: 9 }, { word: 'not begun' }],
  ])('a run %j', (run, state) => {
    expect(states({ bench: { run } }).run).toEqual(state);
  });
  test('the log counts the runs kept and those begun since', () => {
    expect(states({ runs: 1 }).log.word).toBe('1 run');
    expect(states({ runs: 1, started: 2 }).log.word).toBe('3 runs');
  });
});
