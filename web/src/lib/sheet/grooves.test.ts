import { expect, test } from 'vitest';
import { grooves } from './grooves.ts';

test('each stretch below the surface, with its deepest place, up to both ends', () => {
  expect(grooves([0, -2, -3, 0, -0.01, -1], 0, 5, () => 0)).toEqual([
    { from: 1, to: 2, z: -3 },
    { from: 5, to: 5, z: -1 },
  ]);
  expect(grooves([-1, -1, 0], 0, 1, () => 0)).toEqual([{ from: 0, to: 1, z: -1 }]);
  // Stock that is thinner there is not carved by that.
  expect(grooves([-0.5, -0.5], 0, 1, () => -0.5)).toEqual([]);
});
