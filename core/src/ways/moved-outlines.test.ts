import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { signedArea } from '../geometry/outline.ts';
import { movedOutlines } from './moved-outlines.ts';

const box = (x: number, y: number, w: number, h = w) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
/** Two squares of 10 mm, 10 mm apart, and a passage so wide between them. */
const dumbbell = (x: number, y: number, passage: number) =>
  clipper.union([box(x, y, 10), box(x + 20, y, 10), box(x + 5, y + 5 - passage / 2, 20, passage)], 'nonzero')[0];
const NONE = { lost: 0, split: 0, grown: 0 };

test.each([
  ['squares 1 mm apart', [box(0, 0, 10), box(11, 0, 10)], 3, { grown: 1 }],
  ['squares 7 mm apart', [box(0, 0, 10), box(17, 0, 10)], 3, {}],
  ['three in a row, and one by itself', [0, 11, 22, 50].map((x) => box(x, 0, 10)), 3, { grown: 2 }],
  ['a hole that closes', [box(0, 0, 40), box(10, 10, 5)], 3, { lost: 1 }],
  ['a hole that stays', [box(0, 0, 40), box(10, 10, 7)], 3, {}],
  [
    'a hole that falls in two, and one that closes',
    [box(0, 0, 60), dumbbell(5, 5, 2), box(5, 40, 5)],
    3,
    { lost: 1, split: 1 },
  ],
  ['a hole with a wide passage', [box(0, 0, 60), dumbbell(5, 5, 7)], 3, {}],
  ['a part in a hole, too near to its wall', [box(0, 0, 60), box(10, 10, 40), box(12, 12, 20)], 3, { grown: 1 }],
  [
    'a part in a hole, and a hole in that',
    [box(0, 0, 60), box(10, 10, 40), box(20, 20, 20), box(27, 27, 5)],
    3,
    { lost: 1 },
  ],
  ['inwards: a square too small', [box(0, 0, 10), box(20, 0, 5)], -3, { lost: 1 }],
  ['inwards: a neck', [dumbbell(0, 0, 2)], -3, { split: 1 }],
  ['inwards: islands 1 mm apart', [box(0, 0, 60), box(20, 20, 5), box(26, 20, 5)], -3, { grown: 1 }],
  ['inwards: an island at the wall', [box(0, 0, 60), box(2, 20, 5)], -3, { grown: 1 }],
] as const)('%s', (_, drawn, by, found) => {
  const area = clipper.union([...drawn], 'evenodd');
  const moved = clipper.offset(area, by).map((points) => ({ points, hole: signedArea(points) < 0 }));
  expect(movedOutlines(area, moved, by > 0)).toEqual({ ...NONE, ...found });
});
