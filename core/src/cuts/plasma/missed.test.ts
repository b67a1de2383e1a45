import { expect, test } from 'vitest';
import { clipper } from '../../geometry/clipper-for-tests.ts';
import { boundsOf } from '../../geometry/outline.ts';
import { shiftLoops } from '../../geometry/same-shape.ts';
import { missed } from './missed.ts';

// A piece with a slot 1 mm wide in its upper half, which a kerf of 2 mm closes; x and y unlike in all of it.
const SLOTTED = [Float64Array.of(0, 0, 60, 0, 60, 20, 31, 20, 31, 12, 30, 12, 30, 20, 0, 20)];
const KERF = 2;

test.each([
  [3, 240],
  [170, -15],
])('what a kerf closes lies in its piece, wherever that lies: %i, %i', (dx, dy) => {
  const here = missed(SLOTTED, 'outside', KERF, false, clipper);
  expect(here.narrow).toHaveLength(1);
  const { minX, minY, maxX, maxY } = boundsOf(here.narrow.map((points) => ({ points })))!;
  for (const [at, is] of [
    [minX, 30],
    [maxX, 31],
    [minY, 12],
    [maxY, 20],
  ])
    expect(Math.abs(at - is)).toBeLessThan(0.3);
  const there = missed(shiftLoops(SLOTTED, dx, dy), 'outside', KERF, false, clipper);
  const back = boundsOf(shiftLoops(there.narrow, -dx, -dy).map((points) => ({ points })))!;
  for (const [k, side] of ([minX, minY, maxX, maxY] as const).entries())
    expect([back.minX, back.minY, back.maxX, back.maxY][k]).toBeCloseTo(side, 3);
});

test('of two equal pieces each has its own place', () => {
  const area = [...SLOTTED, ...shiftLoops(SLOTTED, 90, 40)];
  const { narrow } = missed(area, 'outside', KERF, false, clipper);
  expect(narrow.map((points) => Math.round(boundsOf([{ points }])!.minX)).sort((a, b) => a - b)).toEqual([30, 120]);
  expect(narrow.map((points) => Math.round(boundsOf([{ points }])!.minY)).sort((a, b) => a - b)).toEqual([12, 52]);
});

test('strokes narrower than two kerfs are fine, wider ones are not; on its line nothing is missed', () => {
  const bar = (width: number) => [Float64Array.of(5, 9, 45, 9, 45, 9 + width, 5, 9 + width)];
  expect(missed(bar(3), 'outside', KERF, false, clipper).fine).toBe(true);
  expect(missed(bar(5), 'outside', KERF, false, clipper).fine).toBe(false);
  expect(missed(SLOTTED, 'on', KERF, false, clipper)).toEqual({ narrow: [], fine: false });
});
