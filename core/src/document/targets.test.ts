import { expect, test } from 'vitest';
import { includesShape, toggleShape } from './targets.ts';

test('shapes are added and taken out, and a full item counts as whole', () => {
  const one = toggleShape([], 'a', 2, 3);
  expect(one).toEqual([{ item: 'a', shapes: [2] }]);
  const two = toggleShape(one, 'a', 0, 3);
  expect(two).toEqual([{ item: 'a', shapes: [0, 2] }]);
  const all = toggleShape(two, 'a', 1, 3);
  expect(all).toEqual([{ item: 'a', shapes: 'all' }]);
  expect(toggleShape(all, 'a', 1, 3)).toEqual(two);
  expect(toggleShape(one, 'a', 2, 3)).toEqual([]);
  expect(toggleShape([{ item: 'b', shapes: [0] }], 'a', 0, 1)).toHaveLength(2);
});
test('a whole item takes in every shape, another item none', () => {
  expect(includesShape([{ item: 'a', shapes: 'all' }], 'a', 7)).toBe(true);
  expect(includesShape([{ item: 'a', shapes: [1] }], 'a', 2)).toBe(false);
  expect(includesShape([{ item: 'a', shapes: 'all' }], 'b', 0)).toBe(false);
});
