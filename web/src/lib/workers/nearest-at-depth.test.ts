import { expect, test } from 'vitest';
import { nearestAtDepth } from './nearest-at-depth.ts';
import { pathForTests } from '@kerbe/core/motion/path-for-tests';

const path = (rows: readonly (readonly [number, number, number, number])[]) =>
  pathForTests(
    rows.flatMap(([x, y, z]) => [x, y, z]),
    rows.map(([, , , f]) => f),
  );
/** Down at the corner, a shallow side, and two deep ones. */
const cut = path([
  [0, 0, 5, 0],
  [0, 0, -1, 300],
  [100, 0, -1, 1000],
  [100, 0, -4, 300],
  [100, 50, -4, 1000],
  [0, 50, -4, 1000],
  [0, 50, 5, 0],
  [0, 0, 5, 0],
]);

test('the foot on the nearest deep move', () => {
  expect(nearestAtDepth(cut, 90, 20)).toEqual({ x: 100, y: 20 });
  expect(nearestAtDepth(cut, 30, 60)).toEqual({ x: 30, y: 50 });
  expect(nearestAtDepth(cut, 120, 70)).toEqual({ x: 100, y: 50 });
});
test('shallow passes and links do not count, though they are nearer', () => {
  expect(nearestAtDepth(cut, 40, 5)).toEqual({ x: 40, y: 50 });
  expect(nearestAtDepth(cut, 0, 20)).toEqual({ x: 0, y: 50 });
});
test('a path that cuts nothing has no such place', () => {
  expect(nearestAtDepth(path([]), 0, 0)).toBeUndefined();
  expect(
    nearestAtDepth(
      path([
        [0, 0, 5, 0],
        [10, 0, 5, 0],
      ]),
      0,
      0,
    ),
  ).toBeUndefined();
});
