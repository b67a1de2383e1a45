import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readJobFile } from '@kerbe/core/job/job-file';
import type { Job } from '@kerbe/core/document/job';
import { routerOf } from '@kerbe/core/machines/router/bench';
import { basisOf, bitShapeOf } from './of-job.ts';
import {
  acrossFrom,
  afterwards,
  type Basis,
  type Change,
  CORNERS,
  judgeZero,
  riseOf,
  truthOf,
  TRUTH,
  type Zero,
  type ZeroPart,
  zeroTrouble,
} from './zero.ts';

const { job: comet } = readJobFile(
  readFileSync(new URL('../../../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8'),
);
const changed = (change: (job: Job) => void): Job => {
  const job = structuredClone(comet);
  change(job);
  return job;
};
const onTop = changed((job) => (job.stock.zeroZ = 'stock'));
const onBoard = changed((job) => (job.stock.zeroZ = 'spoilboard'));

function zeroOf(job: Job, method: ZeroPart['method'] = 'corner'): Zero {
  const part: ZeroPart = {
    at: '2026-11-25T09:00:00.000Z',
    by: 'Asa',
    method,
    corner: 'lower-left',
    bit: bitShapeOf(job.bits, 'v90'),
    basis: basisOf('comet', job),
  };
  return { xy: part, z: { ...part } };
}

describe('what a zero is worth when the job changes', () => {
  test.each<[string, Job, ZeroPart['method'], (job: Job) => void, 'kept' | 'void', 'kept' | 'void', Change]>([
    ['other material', onTop, 'corner', (job) => (job.stock.material = 'ash'), 'void', 'void', 'other-stock'],
    ['another length', onTop, 'corner', (job) => (job.stock.length += 20), 'void', 'void', 'other-stock'],
    ['another width', onTop, 'corner', (job) => (job.stock.width += 20), 'void', 'void', 'other-stock'],
    ['held anew', onTop, 'corner', (job) => (job.stock.holdDown = 'tape'), 'void', 'void', 'board-moved'],
    ['another corner', onTop, 'corner', (job) => (job.stock.zeroXY = 'upper-right'), 'void', 'kept', 'other-place'],
    ['the centre', onTop, 'corner', (job) => (job.stock.zeroXY = 'centre'), 'void', 'kept', 'other-place'],
    ['top to spoilboard', onTop, 'corner', (job) => (job.stock.zeroZ = 'spoilboard'), 'kept', 'void', 'other-surface'],
    ['spoilboard to top', onBoard, 'spoilboard', (job) => (job.stock.zeroZ = 'stock'), 'kept', 'void', 'other-surface'],
    [
      'another plate',
      onTop,
      'flat',
      (job) => (routerOf(job.bench).plate.thickness = 10),
      'kept',
      'void',
      'other-plate',
    ],
  ])('%s', (_, then, method, change, xy, z, why) => {
    const now = structuredClone(then);
    change(now);
    const judged = judgeZero(zeroOf(then, method), basisOf('comet', now));
    expect([judged.xy, judged.z]).toEqual([xy, z]);
    expect(judged.voidXY ?? judged.voidZ).toBe(why);
    expect(zeroTrouble(judged)).toContain(truthOf(why).says);
  });
  test('another job', () => {
    expect(judgeZero(zeroOf(onTop), basisOf('other', onTop))).toMatchObject({
      xy: 'void',
      z: 'void',
      voidXY: 'other-job',
    });
  });
  test('nothing changed', () => {
    const judged = judgeZero(zeroOf(onTop), basisOf('comet', onTop));
    expect(judged).toMatchObject({ xy: 'kept', z: 'kept', said: [] });
    expect(zeroTrouble(judged)).toBeUndefined();
  });
  test('a thickness under a zero that was touched on the top is kept, and said', () => {
    const now = structuredClone(onTop);
    now.stock.corners = [12, 12, 12, 12];
    expect(judgeZero(zeroOf(onTop), basisOf('comet', now))).toMatchObject({
      xy: 'kept',
      z: 'kept',
      said: ['thickness-top'],
    });
  });
  test('a thickness over a zero that was touched on the board is kept, and said', () => {
    const now = structuredClone(onBoard);
    now.stock.corners = [12, 12, 12, 12];
    expect(judgeZero(zeroOf(onBoard, 'spoilboard'), basisOf('comet', now))).toMatchObject({
      z: 'kept',
      said: ['thickness-board'],
    });
  });
  test('one corner corrected: reckoned from the touched one, zero lay on the thickest', () => {
    const even = changed((job) => Object.assign(job.stock, { zeroZ: 'stock', corners: [12, 11.9, 11.8, 11.7] }));
    const now = structuredClone(even);
    now.stock.corners = [12, 11.9, 14, 11.7];
    for (const method of ['corner', 'flat', 'paper', 'gauge', 'eye', 'felt'] as const)
      expect(judgeZero(zeroOf(even, method), basisOf('comet', now)), method).toMatchObject({
        xy: 'kept',
        voidZ: 'thickness-derived',
      });
  });
  test('a height reckoned through the stock from the other surface goes with the thickness', () => {
    const now = structuredClone(onBoard);
    now.stock.corners = [12, 12, 12, 12];
    expect(judgeZero(zeroOf(onBoard, 'corner'), basisOf('comet', now))).toMatchObject({
      xy: 'kept',
      voidZ: 'thickness-derived',
    });
  });
});

describe('what a zero is worth after what happens at the bench', () => {
  test.each(TRUTH.map((row) => [row.change, row] as const))('%s', (change, row) => {
    const { xy, z } = afterwards(zeroOf(onTop), change);
    expect(xy!.void).toBe(row.xy === 'kept' ? undefined : change);
    expect(z!.void).toBe(row.z === 'kept' ? undefined : change);
  });
  test('a measuring does not mend what a lost position has made void', () => {
    const lost = afterwards(afterwards(zeroOf(onTop), 'bit'), 'link-lost');
    expect(lost.z!.void).toBe('link-lost');
    expect(afterwards(lost, 'bit').z!.void).toBe('link-lost');
  });
  test('the rows the issue of every motion asks for', () => {
    const asked: [Change, string, string][] = [
      ['other-job', 'void', 'void'],
      ['other-stock', 'void', 'void'],
      ['board-moved', 'void', 'void'],
      ['other-place', 'void', 'kept'],
      ['other-surface', 'kept', 'void'],
      ['other-plate', 'kept', 'void'],
      ['thickness-top', 'kept', 'kept'],
      ['thickness-board', 'kept', 'kept'],
      ['bit', 'kept', 'void until measured'],
      ['homed', 'kept', 'kept'],
      ['link-lost', 'void', 'void'],
      ['reset', 'void', 'void'],
      ['position-lost', 'void', 'void'],
      ['emergency-at-rest', 'kept', 'void until measured'],
    ];
    for (const [change, xy, z] of asked) expect(truthOf(change)).toMatchObject({ xy, z });
  });
});

// 9.0 mm at the touched corner, 9.4 at the thickest: the top of the stock lies 0.4 over what was touched.
test('from the touched surface to zero', () => {
  const job = changed((j) => {
    j.stock.corners = [9, 9.2, 9.4, 9.1];
    j.stock.zeroZ = 'stock';
  });
  const basis = basisOf('a', job);
  expect(riseOf(basis, 'corner', 'lower-left')).toBeCloseTo(0.4, 9);
  expect(riseOf(basis, 'corner', 'upper-right')).toBeCloseTo(0, 9);
  expect(riseOf(basis, 'flat')).toBeCloseTo(9.4 - 9.175, 9);
  expect(riseOf(basis, 'spoilboard')).toBeCloseTo(9.4, 9);
  const board = basisOf(
    'a',
    changed((j) => (j.stock.zeroZ = 'spoilboard')),
  );
  expect(riseOf(board, 'spoilboard')).toBe(0);
  expect(riseOf(board, 'corner', 'lower-left')).toBe(-9);
});

test('wherever zero is to lie and whichever corner is touched, from there to zero is as the sheet lies', () => {
  const [length, width] = [230, 170];
  const places = {
    'lower-left': [0, 0],
    'lower-right': [length, 0],
    'upper-right': [length, width],
    'upper-left': [0, width],
  };
  for (const zeroXY of [...CORNERS, 'centre'] as const) {
    const basis = basisOf(
      'a',
      changed((j) => Object.assign(j.stock, { length, width, zeroXY })),
    );
    const zero = zeroXY === 'centre' ? [length / 2, width / 2] : places[zeroXY];
    for (const corner of CORNERS) {
      const { x, y } = acrossFrom(basis, corner);
      expect([places[corner][0] + x, places[corner][1] + y], `${zeroXY} from ${corner}`).toEqual(zero);
    }
  }
});

// What the whole table is for: a tool sent to a depth ends that deep under the surface that the job means, or does not start.
test('over any corners, methods and edits the tip stands as deep as the job says, or zero is void', () => {
  const BOARD = -123.4;
  const thick = fc.integer({ min: 10, max: 400 }).map((n) => n / 10);
  const corners = fc.oneof(
    thick.map((t) => [t, t, t, t] as const),
    fc.tuple(thick, thick, thick, thick),
  );
  /** How the thicknesses that were typed are corrected: one corner, all by as much, all anew, or not at all. */
  const edit = fc.oneof(
    fc.record({ corner: fc.integer({ min: 0, max: 3 }), to: thick }),
    fc.record({ by: fc.integer({ min: -5, max: 5 }).map((n) => n / 10) }),
    fc.record({ all: corners }),
    fc.constant({}),
  );
  const edited = (
    now: readonly number[],
    change: { corner?: number; to?: number; by?: number; all?: readonly number[] },
  ) => now.map((t, k) => (change.all ? change.all[k] : change.corner === k ? change.to! : t + (change.by ?? 0)));
  const method = fc.constantFrom<ZeroPart['method']>('corner', 'flat', 'spoilboard', 'paper', 'eye', 'gauge', 'felt');
  const corner = fc.constantFrom(...CORNERS);
  const surface = fc.constantFrom<Basis['placeZ']>('stock', 'spoilboard');
  let kept = 0;
  fc.assert(
    fc.property(
      corners,
      method,
      corner,
      surface,
      fc.array(edit, { maxLength: 3 }),
      surface,
      fc.integer({ min: -50, max: 80 }),
      (typed, by, at, zeroZ, edits, zeroZNow, tenths) => {
        const job = changed((j) => Object.assign(j.stock, { corners: [...typed], zeroZ }));
        const zero = zeroOf(job, by);
        zero.z!.corner = at;
        const last = edits.reduce<readonly number[]>((now, change) => edited(now, change), typed);
        // The stock as it really lies is as it was typed last.
        const [ll, lr, ur, ul] = last;
        const touched = by === 'spoilboard' ? 0 : by === 'corner' ? last[CORNERS.indexOf(at)] : (ll + lr + ur + ul) / 4;
        const origin = BOARD + touched + riseOf(zero.z!.basis, by, at);
        const now = basisOf(
          'comet',
          changed((j) => Object.assign(j.stock, { corners: [...last], zeroZ: zeroZNow })),
        );
        if (judgeZero(zero, now).z !== 'kept') return;
        kept++;
        const means = BOARD + (zeroZNow === 'stock' ? Math.max(...last) : 0);
        const depth = tenths / 10;
        expect(origin - depth).toBeCloseTo(means - depth, 2);
      },
    ),
    { numRuns: 3000 },
  );
  expect(kept).toBeGreaterThan(300);
});
