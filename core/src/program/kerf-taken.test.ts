import { expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import { kerfFinding, kerfTaken } from './kerf-taken.ts';

const square = { points: Float64Array.of(20, 20, 120, 20, 120, 120, 20, 120), closed: true };
/** Round the square at a distance, with a lead of 6 mm. */
const round = (off: number) => {
  const [a, b] = [20 - off, 120 + off];
  return pathForTests(
    [50, a - 6, 1, 50, a, 1, b, a, 1, b, b, 1, a, b, 1, a, a, 1, 50, a, 1],
    [0, 900, 900, 900, 900, 900, 900],
  );
};

test.each([
  [0, 'none'],
  [0.75, 'once'],
  [1.5, 'twice'],
  [4, undefined],
  [-0.75, 'once'],
] as const)('a way %f mm beside the lines, for a kerf of 1.5 mm: %s', (off, taken) => {
  expect(kerfTaken(round(off), [square], 1.5)).toBe(taken);
});

test('what is said goes by who takes the kerf off', () => {
  const said = (taken: 'none' | 'once' | 'twice' | undefined, by: 'here' | 'controller') => kerfFinding(taken, by, 1.5, 'mm'); // prettier-ignore
  expect([said('once', 'here'), said('none', 'controller'), said(undefined, 'here')]).toEqual([undefined, undefined, undefined]); // prettier-ignore
  expect(said('none', 'here')).toContain('taken off by nobody');
  expect(said('once', 'controller')).toContain('once more');
  expect([said('twice', 'here'), said('twice', 'controller')].every((text) => text?.includes('twice'))).toBe(true);
  expect(kerfTaken(round(0.75), [], 1.5)).toBeUndefined();
});
