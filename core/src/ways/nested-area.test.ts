import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { signedArea } from '../geometry/outline.ts';
import { nestedArea } from './nested-area.ts';

const square = (x: number, y: number, side: number) => [
  Float64Array.of(x, y, x + side, y, x + side, y + side, x, y + side),
];
const kept = (...covers: Float64Array[][]) => {
  const { area, ...said } = nestedArea(covers, clipper);
  return { covered: Math.round(area.reduce((sum, loop) => sum + signedArea(loop), 0) * 1000) / 1000, ...said };
};

test.each([
  ['one', [square(0, 0, 10)], 100, false, 0],
  ['beside each other', [square(0, 0, 10), square(20, 0, 10)], 200, false, 0],
  ['side by side', [square(0, 0, 10), square(10, 0, 10)], 200, false, 10],
  ['a hole', [square(0, 0, 10), square(3, 3, 4)], 84, false, 0],
  ['the hole first', [square(3, 3, 4), square(0, 0, 10)], 84, false, 0],
  ['a part in the hole of a part', [square(0, 0, 10), square(2, 2, 6), square(4, 4, 2)], 68, false, 0],
  ['a hole in each of two', [square(0, 0, 10), square(3, 3, 4), square(20, 0, 10), square(23, 3, 4)], 168, false, 0],
  ['drawn twice', [square(0, 0, 10), square(0, 0, 10)], 100, false, 0],
  ['a shape that covers nothing', [[], square(0, 0, 10)], 100, false, 0],
  ['crossing', [square(0, 0, 10), square(5, 5, 10)], 150, true, 0],
  [
    'crossing, and another that touches',
    [square(0, 0, 10), square(5, 5, 10), square(15, 5, 10), [] as Float64Array[]],
    250,
    true,
    10,
  ],
  ['a hole across the edge', [square(0, 0, 10), square(8, 3, 4)], 100 + 16 - 16, true, 0],
])('%s', (_, covers, covered, crossing, touching) => {
  expect(kept(...covers)).toEqual({ covered, crossing, touching });
});
