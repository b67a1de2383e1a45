import { describe, expect, test } from 'vitest';
import { flatTrack } from '../motion/track.ts';
import { wallRounds } from './wall-rounds.ts';

/** A square about the middle, the area on its left: counter-clockwise. */
const square = (half: number) => Float64Array.of(-half, -half, half, -half, half, half, -half, half);
const round = (r: number, n = 90) => Float64Array.from({ length: 2 * n }, (_, i) => r * (i % 2 ? Math.sin : Math.cos)((2 * Math.PI * (i >> 1)) / n)); // prettier-ignore
const along = (loop: Float64Array) => flatTrack(loop, 0, true);

describe('a round along a wall', () => {
  test('of a square begins over the middle of a side, as far from it as the allowance', () => {
    const [{ xyz }] = wallRounds([square(10)], [along(square(9.5))], 0.5, true);
    expect([...xyz.slice(0, 12)]).toEqual([0, -9.5, 0, 0, -10, 0, 10, -10, 0, 10, 10, 0]);
    expect([...xyz.slice(-9)]).toEqual([-10, -10, 0, 0, -10, 0, 0, -9.5, 0]);
  });

  test('the other way round where it is conventional', () => {
    const [{ xyz }] = wallRounds([square(10)], [along(square(9.5))], 0.5, false);
    expect([...xyz.slice(0, 9)]).toEqual([0, -9.5, 0, 0, -10, 0, -10, -10, 0]);
  });

  test.each([0.05, 0.4, 2])('of a disc, the allowance being %f mm', (finish) => {
    const [{ xyz }] = wallRounds([round(10)], [along(round(10 - finish))], finish, true);
    // A chord's middle is 0.006 mm off the disc.
    expect(Math.abs(Math.hypot(xyz[0], xyz[1]) - (10 - finish))).toBeLessThan(0.0065);
    expect(Math.hypot(xyz[3] - xyz[0], xyz[4] - xyz[1])).toBeCloseTo(finish, 9);
  });

  test('of the longest side beside which it is cleared', () => {
    const wall = Float64Array.of(0, 0, 30, 0, 30, 20, 0, 20);
    // Nothing is cleared beside the long sides.
    const cleared = flatTrack([29, 4, 29, 15], 0, false);
    const [{ xyz }] = wallRounds([wall], [cleared], 1, true);
    expect([...xyz.slice(0, 6)]).toEqual([29, 10, 0, 30, 10, 0]);
  });

  test('at the nearest corner where no side has such a place, and on the wall itself where nothing is near', () => {
    const [nearCorner] = wallRounds([square(10)], [flatTrack([9.7, 9.7, 5, 5], 0, false)], 0.5, true);
    expect([...nearCorner.xyz.slice(0, 6)]).toEqual([9.7, 9.7, 0, 10, 10, 0]);
    const [far] = wallRounds([square(10)], [along(square(9.4))], 0.5, true);
    expect([...far.xyz.slice(0, 3)]).toEqual([-10, -10, 0]);
    expect(wallRounds([square(10)], [], 0.5, true)[0].xyz).toHaveLength(15);
  });
});
