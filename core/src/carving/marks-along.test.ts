import { expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import { marksAlong } from './marks-along.ts';

/** Drawn from (15, −5) to (15, 5), pressed 2 mm, after coming down there. */
const path = pathForTests([15, -5, 1, 15, -5, -2, 15, 5, -2, 15, 5, 1], [0, 900, 900, 0]);
const mark = { kind: 'mark', width: 0.3 } as const;

test('a line that is crossed square is met as wide as it is, a slanted one wider, and nothing where it does not reach', () => {
  const [met, ...more] = marksAlong([{ path, leaves: mark }], 0, 0, 30, 0);
  expect(more).toEqual([]);
  expect([met.from, met.to]).toEqual([expect.closeTo(0.495, 9), expect.closeTo(0.505, 9)]);
  const [slanted] = marksAlong([{ path, leaves: mark }], 0, -15, 30, 15);
  expect((slanted.to - slanted.from) * Math.hypot(30, 30)).toBeCloseTo(0.3 * Math.SQRT2, 9);
  expect(marksAlong([{ path, leaves: mark }], 0, 6, 30, 6)).toEqual([]);
});
test('what takes something away is no mark', () => {
  const groove = { kind: 'groove', profile: { flat: 1, slope: 0, radius: 1 } } as const;
  expect(marksAlong([{ path, leaves: groove }], 0, 0, 30, 0)).toEqual([]);
});
test('lines that overlap are one', () => {
  const twice = [0, 0.2].map((x) => ({
    path: pathForTests([15 + x, -5, 1, 15 + x, -5, -2, 15 + x, 5, -2], [0, 900, 900]),
    leaves: mark,
  }));
  const [met, ...more] = marksAlong(twice, 0, 0, 30, 0);
  expect(more).toEqual([]);
  expect((met.to - met.from) * 30).toBeCloseTo(0.5, 9);
});
