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
  expect(kerfTaken(round(off), [square], 1.5)?.taken).toBe(taken);
});

test.each([
  ['once', false, 'here', undefined],
  ['none', true, 'controller', undefined],
  ['none', false, 'here', 'taken off by nobody'],
  ['none', true, 'here', 'takes none off'],
  ['none', false, 'controller', 'does not tell the controller'],
  ['once', false, 'controller', 'would take the kerf off once more'],
  ['once', true, 'here', 'once more (G41 or G42)'],
  ['once', true, 'controller', 'once more (G41 or G42)'],
  ['twice', false, 'here', 'taken off twice'],
  ['twice', false, 'controller', 'taken off twice'],
] as const)('taken off %s by the way, controller told: %s, to be taken off %s: %s', (taken, led, by, said) => {
  const text = kerfFinding({ taken, led }, by, 1.5, 'mm');
  if (said) expect(text).toContain(said);
  else expect(text).toBeUndefined();
});

test.each([
  [45, 'once'],
  [35, undefined],
] as const)('along %i mm of 100 beside the lines: %s', (along, taken) => {
  const way = pathForTests([25, 19.25, 1, 25 + along, 19.25, 1, 25 + along, 10, 1, 125, 10, 1], [0, 900, 0, 900]);
  way.power[2] = 0;
  expect(kerfTaken(way, [square], 1.5)?.taken).toBe(taken);
});

test('nothing is said of another drawing; what the controller is told counts by its length', () => {
  expect(kerfTaken(round(0.75), [], 1.5)).toBeUndefined();
  expect(kerfFinding(undefined, 'here', 1.5, 'mm')).toBeUndefined();
  expect(kerfTaken(round(0), [square], 1.5, Uint8Array.of(0, 0, 1, 1, 1, 1, 1))).toEqual({ taken: 'none', led: true });
  expect(kerfTaken(round(0), [square], 1.5, Uint8Array.of(0, 1, 0, 0, 0, 0, 0))).toEqual({ taken: 'none', led: false });
});
