import { describe, expect, test } from 'vitest';
import { pathAlong } from '../motion/path.ts';
import { checkWalls } from './wall-check.ts';
import { pathForTests } from '../motion/path-for-tests.ts';

const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 20 };
const groove = (depth: number) => pathForTests([0, 5, -depth, 100, 5, -depth], [0, 1000]);
/** Walls far from any groove. */
const strip = [Float64Array.of(10, 53, 90, 53, 90, 57, 10, 57)];
const exact = 2 / bit.slope;

describe('walls against the ideal (closed formula d = w/(2·tan α))', () => {
  test('a groove as deep as its width asks meets both walls', () => {
    const { gouge, places } = checkWalls(groove(exact), bit, [Float64Array.of(10, 3, 90, 3, 90, 3.0001)], 0.5);
    expect(places).toBeGreaterThan(150);
    expect(gouge).toBeLessThan(1e-3);
  });
  test('a tenth too deep cuts outside by a tenth times tan α', () => {
    const walls = checkWalls(groove(exact + 0.1), bit, [Float64Array.of(10, 3, 90, 3, 90, 3.0000001)], 0.5);
    expect(walls.gouge).toBeCloseTo(0.1 * bit.slope, 3);
  });
  test('a tenth too shallow leaves a wall a tenth short', () => {
    const walls = checkWalls(groove(exact - 0.1), bit, [Float64Array.of(10, 3, 90, 3, 90, 3.0000001)], 0.5);
    expect(walls.standing).toBeCloseTo(0.1, 3);
    expect(walls.standing999).toBeLessThanOrEqual(walls.standing);
    expect(walls.gouge).toBe(0);
  });
  test('walls that no groove comes near are not reached at all', () => {
    expect(checkWalls(groove(exact), bit, strip, 0.5).standing).toBe(Infinity);
    const nothing = pathAlong(new Float64Array(0));
    expect(checkWalls(nothing, bit, strip, 0.5).standing).toBe(Infinity);
  });
});
