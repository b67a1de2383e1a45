import { expect, test } from 'vitest';
import { type Path } from './path.ts';
import { planMotion } from './plan.ts';
import { pathForTests } from './path-for-tests.ts';

const limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 300,
};
const path = (feed: number, ...points: [number, number, number][]): Path =>
  pathForTests(
    points.flat(),
    points.map(() => feed),
  );
const seconds = (p: Path) => planMotion(p, limits).minutes * 60;

test('one move from rest to rest takes s/v + v/a, or 2·√(s/a) where v is not reached', () => {
  expect(seconds(path(1200, [0, 0, 0], [100, 0, 0]))).toBeCloseTo(100 / 20 + 20 / 400, 9);
  expect(seconds(path(6000, [0, 0, 0], [4, 0, 0]))).toBeCloseTo(2 * Math.sqrt(4 / 400), 9);
  expect(seconds(path(1200, [0, 0, 0], [0, 0, -50]))).toBeCloseTo(50 / 20 + 20 / 250, 9);
});
test('a rapid move, and a feed above the limit, run at the axis’ own speed', () => {
  const expected = 200 / 100 + 100 / 400;
  expect(seconds(path(0, [0, 0, 0], [200, 0, 0]))).toBeCloseTo(expected, 9);
  expect(seconds(path(60_000, [0, 0, 0], [200, 0, 0]))).toBeCloseTo(expected, 9);
  // Along the diagonal both axes work: speed and acceleration are √2 times those of the weaker.
  expect(seconds(path(0, [0, 0, 0], [200, 200, 0]))).toBeCloseTo(200 / 90 + 90 / 320, 9);
  expect(seconds(path(0, [0, 0, 0], [0, 200, 0]))).toBeCloseTo(200 / 90 + 90 / 320, 9);
});
test('a straight line in many pieces takes as long as in one', () => {
  const pieces = Array.from({ length: 101 }, (_, i): [number, number, number] => [i, 0, 0]);
  expect(seconds(path(1200, ...pieces))).toBeCloseTo(seconds(path(1200, [0, 0, 0], [100, 0, 0])), 6);
});
test('where the bit waits it stops, and the point counts as reached when it has waited', () => {
  const p = path(1200, [0, 0, 0], [50, 0, 0], [100, 0, 0]);
  const { at, minutes } = planMotion(p, limits, { points: [1], seconds: 0.5 });
  const half = 50 / 20 + 20 / 400;
  expect(at[1] * 60).toBeCloseTo(half + 0.5, 9);
  expect(minutes * 60).toBeCloseTo(2 * half + 0.5, 9);
});
test('a right angle is passed at the corner step, a reversal at half of it', () => {
  const v = 20;
  const corner = 300 / 60;
  // Slowing from v to the corner's speed and speeding up again, beside cruising: (v − c)²/(a·v) longer.
  const loss = (c: number, a = 400) => (v - c) ** 2 / (a * v);
  const straight = 200 / v + v / 400;
  const there = seconds(path(1200, [0, 0, 0], [100, 0, 0], [0, 0, 0]));
  expect(there).toBeCloseTo(straight + loss(corner / 2), 6);
  // Half of it along Y, whose axis is weaker.
  const round = seconds(path(1200, [0, 0, 0], [100, 0, 0], [100, 100, 0]));
  const both = 200 / v + (v / 400 + v / 320) / 2 + (loss(corner) + loss(corner, 320)) / 2;
  expect(round).toBeCloseTo(both, 6);
});
