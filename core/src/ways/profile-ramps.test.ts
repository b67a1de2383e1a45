import { describe, expect, test } from 'vitest';
import { rampBefore, rampIn, rampsBehindTabs } from './profile-ramps.ts';

const at = (xyz: ArrayLike<number>) =>
  Array.from({ length: xyz.length / 3 }, (_, k) => [xyz[3 * k], xyz[3 * k + 1], xyz[3 * k + 2]]);
const long = (xyz: ArrayLike<number>) =>
  at(xyz).reduce((sum, [x, y], k, all) => sum + (k ? Math.hypot(x - all[k - 1][0], y - all[k - 1][1]) : 0), 0);
/** The steepest way down, as a tangent. */
const steepest = (xyz: ArrayLike<number>) =>
  Math.max(...at(xyz).map(([x, y, z], k, all) => (k ? (all[k - 1][2] - z) / Math.hypot(x - all[k - 1][0], y - all[k - 1][1]) || 0 : 0))); // prettier-ignore

const square = [0, 0, -2, 10, 0, -2, 10, 10, -2, 0, 10, -2, 0, 0, -2];

describe('a ramp before a turn', () => {
  test('goes there and back along its beginning, round the corner as well', () => {
    const way = rampBefore(square, 0, -2, 30, 100);
    const heights = [0, -2 / 3, -1, -1, -4 / 3].map((z) => expect.closeTo(z, 9));
    expect(at(way).slice(0, 5)).toEqual([[0, 0], [10, 0], [10, 5], [10, 5], [10, 0]].map((xy, k) => [...xy, heights[k]])); // prettier-ignore
    expect(long(way)).toBeCloseTo(30 + 40, 9);
    expect(steepest(way)).toBeCloseTo(2 / 30, 9);
    expect(at(way).slice(-5)).toEqual(at(square));
  });
  test.each([3, 12])('no further than is free, %i mm', (free) => {
    const way = rampBefore(square, 0, -2, 30, free);
    const ramp = at(way).slice(0, -5);
    expect(Math.max(...ramp.map(([x, y]) => x + y))).toBeCloseTo(30 / (2 * Math.ceil(15 / free)), 9);
    expect(long(ramp.flat())).toBeCloseTo(30, 9);
    expect(ramp.at(-1)).toEqual([0, 0, -2]);
  });
  test('straight down where nothing is free', () => {
    expect(at(rampBefore(square, 0, -2, 30, 0)).slice(0, 2)).toEqual([[0, 0, 0], [0, 0, -2]]); // prettier-ignore
  });
});

describe('a ramp in a turn', () => {
  const slope = Math.atan(2 / 15);
  test('then the whole turn, so that nothing is left of it, and the overlap', () => {
    const way = rampIn(square, 0, -2, slope, 7);
    expect(at(way).slice(0, 3)).toEqual([[0, 0, 0], [10, 0, expect.closeTo(-2 * (10 / 15), 9)], [10, expect.closeTo(5, 9), -2]]); // prettier-ignore
    expect(long(way)).toBeCloseTo(15 + 40 + 7, 9);
    expect(steepest(way)).toBeCloseTo(2 / 15, 9);
    expect(at(way).at(-1)).toEqual([expect.closeTo(8, 9), 10, -2]);
    expect(at(way).filter(([x, y, z]) => x === 0 && y === 0 && z === -2).length).toBeGreaterThan(0);
  });
  test('longer than a turn it goes round again', () => {
    const way = rampIn(square, 0, -2, Math.atan(2 / 95), 0);
    expect(long(way)).toBeCloseTo(95 + 40, 9);
    expect(steepest(way)).toBeCloseTo(2 / 95, 9);
  });
  test('it never goes below what stands in its way', () => {
    // The second side is a tab.
    const tab = [0, 0, -2, 10, 0, -2, 10, 0, -0.5, 10, 10, -0.5, 10, 10, -2, 0, 10, -2, 0, 0, -2];
    for (const [x, y, z] of at(rampIn(tab, 0, -2, slope, 0)))
      if (x === 10 && y > 0 && y < 10) expect(z).toBeGreaterThanOrEqual(-0.5);
  });
  test('so shallow that it would go round for ever it gets a sentence', () => {
    expect(() => rampIn(square, 0, -2, 1e-4, 0)).toThrow(/too shallow for so short an outline/);
  });
});

describe('a ramp behind a tab', () => {
  const behind = [0, 0, -0.5, 4, 0, -0.5, 4, 0, -2, 14, 0, -2, 14, 10, -2];
  test('goes down along the way on, and back, and on', () => {
    const way = rampsBehindTabs(behind, 0, Math.atan(1.5 / 6), 1);
    expect(steepest(way.slice(6))).toBeCloseTo(1.5 / 6, 9);
    expect(long(way)).toBeCloseTo(4 + 6 + 20, 9);
    expect(Math.max(...at(way).map(([x, , z]) => (z > -2 ? x : 0)))).toBeCloseTo(4 + 3, 9);
  });
  test('straight down where the rest is shorter than the least', () => {
    expect(rampsBehindTabs(behind, 0, Math.atan(1.5 / 6), 21)).toEqual(behind);
  });
  test('from no higher than the height above', () => {
    const high = [0, 0, 5, 0, 0, -2, 30, 0, -2];
    const way = rampsBehindTabs(high, 0, Math.atan(2 / 10), 1);
    expect(at(way)[1]).toEqual([0, 0, 0]);
    expect(long(way)).toBeCloseTo(10 + 30, 9);
  });
});
