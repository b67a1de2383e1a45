import { expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import { bitTimes, type CutResult } from './cut-result.ts';
import { turnedCuts } from './turned-cuts.ts';

const cut = (xyz: number[], more: Partial<CutResult> = {}) =>
  ({ path: pathForTests(xyz, [0, 900]), bit: 'a', ...more }) as unknown as CutResult;

// A turn by φ about (a, b): x' = a + (x − a) cos φ − (y − b) sin φ, y' = b + (x − a) sin φ + (y − b) cos φ.
test.each([
  ['a right angle about 10, 20', Math.PI / 2, { x: 10, y: 20 }, [-10, 120, -1, 10, 20, 2]],
  ['3:4:5 about nothing', Math.atan2(3, 4), { x: 0, y: 0 }, [64, 98, -1, -4, 22, 2]],
  ['3:4:5 the other way about 10, 0', -Math.atan2(3, 4), { x: 10, y: 0 }, [114, -28, -1, 22, 16, 2]],
])('turned by %s, heights kept', (_, turn, about, there) => {
  const [turned] = turnedCuts([cut([110, 40, -1, 10, 20, 2])], turn, about);
  turned.path.xyz.forEach((v, k) => expect(v).toBeCloseTo(there[k], 9));
  expect(turned.path.feed).toEqual(cut([0, 0, 0, 1, 1, 1]).path.feed);
});

test('not turned, they are what they were', () => {
  const cuts = [cut([110, 40, -1, 10, 20, 2])];
  expect(turnedCuts(cuts, 0, { x: 5, y: 5 })).toEqual(cuts);
});

test('what each bit does, in the order they come in, without what cannot be cut', () => {
  const times = (bit: string, minutes: number, cutLength: number, problem?: string) =>
    ({ bit, minutes, cutLength, problem }) as CutResult;
  expect(bitTimes([times('b', 2, 300), times('a', 1, 50), times('b', 4, 20), times('c', 9, 9, 'no')])).toEqual([
    { bit: 'b', minutes: 6, cutLength: 320 },
    { bit: 'a', minutes: 1, cutLength: 50 },
  ]);
});
