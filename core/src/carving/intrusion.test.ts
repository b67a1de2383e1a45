import { expect, test } from 'vitest';
import type { Obstacle } from '../stock/obstacles.ts';
import { pathAlong } from '../motion/path.ts';
import { intrusion } from './intrusion.ts';

const clamp: Obstacle = { id: 'c', kind: 'clamp', x: 40, y: 10, length: 20, width: 10, height: 8 };
const path = (...xyz: number[]) => pathAlong(Float64Array.from(xyz), 1000);

test('how far a bit comes inside a clamp: its radius less the distance, its radius and more over it', () => {
  expect(intrusion(path(0, 5, -1, 100, 5, -1), 3, clamp)).toBe(0);
  expect(intrusion(path(0, 8, -1, 100, 8, -1), 3, clamp)).toBeCloseTo(1, 9);
  expect(intrusion(path(0, 15, -1, 100, 15, -1), 3, clamp)).toBeCloseTo(3 + 5, 9);
  // Past the corner at 3 and 4 mm: 5 mm away.
  expect(intrusion(path(37, 6, -1, 37, 6, -2), 6, clamp)).toBeCloseTo(1, 9);
});
test('above its top nothing is in the way', () => {
  expect(intrusion(path(0, 15, 9, 100, 15, 9), 3, clamp)).toBe(0);
  expect(intrusion(path(0, 15, 9, 100, 15, 7), 3, clamp)).toBeGreaterThan(0);
});
