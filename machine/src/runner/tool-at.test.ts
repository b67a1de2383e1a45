import { expect, test } from 'vitest';
import type { ProgramOrder } from './commands.ts';
import { toolAt } from './tool-at.ts';

const order = { cuts: [{ to: 40, bit: { id: 'a' } }, { to: 90, bit: { id: 'b' } }, { to: 120, bit: { id: 'c' } }] } as unknown as ProgramOrder; // prettier-ignore

test.each([
  [0, 'a'],
  [39, 'a'],
  [40, 'b'],
  [119, 'c'],
  // What comes after the last cut is its bit’s.
  [125, 'c'],
])('at line %i bit %s is in', (line, id) => {
  expect(toolAt(order, line).id).toBe(id);
});
