import { expect, test } from 'vitest';
import { strokeStarts } from './piercing.ts';
import { measurePath } from './path.ts';
import { planMotion } from './plan.ts';
import { splitTime } from './split-time.ts';
import { checkMoves, MOST_MOVES } from './too-many-moves.ts';
import { flatTrack, reverseTrack, shiftTrack, type Track } from './track.ts';
import { pathForTests } from './path-for-tests.ts';

test('lifts are counted between cutting, not move by move', () => {
  const path = pathForTests(
    [0, 0, 5, 0, 0, -1, 5, 0, -1, 9, 0, -1, 9, 0, 5, 20, 0, 5, 20, 0, -1, 30, 0, -1, 30, 0, 5],
    [0, 300, 900, 900, 0, 0, 300, 900, 0],
  );
  expect(measurePath(path).lifts).toBe(1);
});

test('a line has no ring, a loop one that comes back; shifted it lies as high', () => {
  const line = flatTrack([0, 5, 9, 5], -1, false);
  expect(line).toMatchObject({ closed: false, ring: 0, oneWay: false });
  expect([...shiftTrack(line, 10, 20).xyz]).toEqual([10, 25, -1, 19, 25, -1]);
  expect(flatTrack([0, 0, 9, 0, 9, 9], -1, true)).toMatchObject({ closed: true, ring: 4, oneWay: true });
});

test('as many moves as are the most are let pass, one more is refused', () => {
  expect(() => checkMoves(MOST_MOVES, 'step')).not.toThrow();
  expect(() => checkMoves(MOST_MOVES + 1, 'step')).toThrow(
    'With this step the cut would have about 4 million moves, and 3 million are the most; make the step larger, or cut fewer outlines at once.',
  );
});

test('a stroke starts where power comes on, and nowhere on the way there', () => {
  expect(strokeStarts({ power: Float32Array.of(0, 0, 0, 1, 1, 0, 0, 0.5) })).toEqual([2, 6]);
});

test('a track with a tail has no ring once it is gone the other way', () => {
  const ring = flatTrack([0, 0, 9, 0, 9, 9], -1, true);
  const tailed: Track = { ...ring, closed: false, xyz: Float64Array.of(...ring.xyz, 20, 0, -1) };
  expect(reverseTrack(tailed).ring).toBe(0);
  expect(reverseTrack(ring).ring).toBe(ring.ring);
});

test('where a way bends downwards it is passed at the corner step of Z too (by hand)', () => {
  const limits = { speed: { x: 6000, y: 5400, z: 2400 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 300 };
  const d = 100 * Math.SQRT1_2;
  const path = pathForTests([0, 0, 0, 100, 0, 0, 100 + d, 0, -d], [0, 3000, 3000]);
  const [top, corner] = [50, 5 / Math.SQRT1_2];
  const timeOf = (from: number, to: number, a: number) =>
    (top - from) / a + (top - to) / a + (100 - (2 * top ** 2 - from ** 2 - to ** 2) / (2 * a)) / top;
  const seconds = timeOf(0, corner, 400) + timeOf(corner, 0, 250 / Math.SQRT1_2);
  expect(planMotion(path, limits).minutes * 60).toBeCloseTo(seconds, 9);
});

test('a slow move before a fast one on a line is left at its own speed (v²/2a, by hand)', () => {
  const limits = { speed: { x: 6000, y: 5400, z: 2400 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 9999 };
  const path = pathForTests([0, 0, 0, 50, 0, 0, 150, 0, 0], [0, 600, 4800]);
  const [a, slow, fast] = [400, 10, 80];
  const first = slow / a + (50 - slow ** 2 / (2 * a)) / slow;
  const speeding = (fast ** 2 - slow ** 2) / (2 * a);
  const second = (fast - slow) / a + fast / a + (100 - speeding - fast ** 2 / (2 * a)) / fast;
  expect(planMotion(path, limits).minutes * 60).toBeCloseTo(first + second, 9);
});

test('straight down is plunging, down a slope is cutting, whatever is rapid is neither', () => {
  const limits = { speed: { x: 6000, y: 5400, z: 2400 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 300 };
  const [over, down, slope, along, up] = [
    [50, 0, 5],
    [50, 0, -1],
    [80, 0, -3],
    [90, 0, -3],
    [90, 0, 5],
  ];
  const path = pathForTests([0, 0, 5, over, down, slope, along, up].flat(), [0, 0, 300, 900, 900, 600]);
  const plan = planMotion(path, limits);
  const minutes = (from: number, to: number) => plan.at[to] - plan.at[from];
  const { cutting, plunging, linking } = splitTime(path, plan);
  expect(linking).toBeCloseTo(minutes(0, 1), 12);
  expect(plunging).toBeCloseTo(minutes(1, 2), 12);
  // Up at a feed is not down.
  expect(cutting).toBeCloseTo(minutes(2, 5), 12);
});
