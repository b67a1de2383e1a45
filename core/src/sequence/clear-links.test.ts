import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Limits } from '../document/limits.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { pathForTests } from '../motion/path-for-tests.ts';
import { planMotion } from '../motion/plan.ts';
import { distanceToKeepOut, KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import type { Obstacle } from '../stock/obstacles.ts';
import { clearLinks as clearing, type ClearingSettings } from './clear-links.ts';

const clearLinks = (path: Path, what: ClearingSettings) => clearing(path, what).path;
const limits: Limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 300,
};
const box = (x: number, y: number, length: number, width: number, height: number): Obstacle => ({
  id: `k-${x}-${y}`,
  kind: 'clamp',
  x,
  y,
  length,
  width,
  height,
});
const settings = (keepOuts: Obstacle[], radius = 3): ClearingSettings => ({
  keepOuts,
  radius,
  stock: { length: 200, width: 100 },
  limits,
});
/** Cuts a millimetre deep at each place, with links at a lift of 5 mm between. */
function dots(places: readonly (readonly [number, number])[]): Path {
  const builder = new PathBuilder();
  for (const [x, y] of places) {
    if (builder.length) builder.rapid(builder.x, builder.y, 5);
    builder.rapid(x, y, 5);
    builder.to(x, y, -1, 600);
  }
  builder.rapid(builder.x, builder.y, 5);
  return builder.done();
}
const rows = ({ xyz, feed }: Path) =>
  Array.from(feed, (f, i) => [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2], f] as const);
/** Links that come too near something that stands higher. */
function near(path: Path, { keepOuts, radius }: ClearingSettings): number {
  const { xyz, feed } = path;
  let count = 0;
  for (let i = 1; i < feed.length; i++) {
    if (feed[i] > 0 || (xyz[3 * i] === xyz[3 * i - 3] && xyz[3 * i + 1] === xyz[3 * i - 2])) continue;
    const z = Math.min(xyz[3 * i - 1], xyz[3 * i + 2]);
    for (const k of keepOuts)
      if (
        k.height > 0 &&
        k.height + KEEP_OUT_ROOM > z + 1e-5 &&
        distanceToKeepOut(xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1], k) < radius + KEEP_OUT_ROOM - 1e-5
      )
        count++;
  }
  return count;
}

describe('links clear what holds the work', () => {
  test('a path that comes near nothing stays the same path', () => {
    const path = dots([
      [20, 20],
      [180, 20],
    ]);
    expect(clearLinks(path, settings([]))).toBe(path);
    expect(clearLinks(path, settings([box(90, 60, 20, 20, 30)]))).toBe(path);
    // Lower than the lift by the room and more.
    expect(clearLinks(path, settings([box(90, 10, 20, 20, 3)]))).toBe(path);
    // Something that lies flat is in nobody's way.
    expect(clearLinks(path, settings([box(90, 10, 20, 20, 0)]))).toBe(path);
  });
  test('a washer half a millimetre high is cleared too, where the lift is low', () => {
    const path = pathForTests(
      [20, 50, 2, 20, 50, -1, 20, 50, 2, 180, 50, 2, 180, 50, -1, 180, 50, 2],
      [0, 600, 0, 0, 600, 0],
    );
    const what = settings([box(90, -10, 20, 120, 0.5)]);
    const cleared = clearLinks(path, what);
    expect(near(path, what)).toBe(1);
    expect(near(cleared, what)).toBe(0);
    expect(Math.max(...rows(cleared).map(([, , z]) => z))).toBe(0.5 + KEEP_OUT_ROOM);
  });
  test('the power of every move stays what it was', () => {
    const path = dots([
      [20, 50],
      [180, 50],
    ]);
    path.power[1] = 0.5;
    const { path: cleared, pointNow } = clearing(path, settings([box(90, -10, 20, 120, 8)]));
    expect(cleared.feed.length).toBeGreaterThan(path.feed.length);
    path.power.forEach((power, k) => expect(cleared.power[pointNow(k)]).toBe(power));
    cleared.rapid.forEach((rapid, k) => expect(rapid ? cleared.power[k] : 0).toBe(0));
  });
  test('a long low clamp is gone over, 2 mm above it', () => {
    const path = dots([
      [20, 50],
      [180, 50],
    ]);
    const cleared = rows(clearLinks(path, settings([box(90, -10, 20, 120, 8)])));
    expect(cleared.filter(([, , , f]) => f === 0).map(([x, y, z]) => [x, y, z])).toEqual([
      [20, 50, 5],
      [20, 50, 5],
      [20, 50, 10],
      [180, 50, 10],
      [180, 50, 5],
      [180, 50, 5],
    ]);
  });
  test('a high clamp that sticks in a little is gone round at the lift, its corner by radius and room', () => {
    const path = dots([
      [20, 8],
      [180, 8],
    ]);
    const found = clearLinks(path, settings([box(90, -10, 20, 22, 60)]));
    const across = rows(found).filter(([, , z, f]) => f === 0 && z === 5);
    expect(Math.max(...rows(found).map(([, , z]) => z))).toBe(5);
    expect(across).toContainEqual([85, 17, 5, 0]);
    expect(across).toContainEqual([115, 17, 5, 0]);
    expect(near(found, settings([box(90, -10, 20, 22, 60)]))).toBe(0);
  });
  test('of over and round the quicker is taken', () => {
    const path = dots([
      [20, 50],
      [180, 50],
    ]);
    for (const height of [4, 8, 16, 32, 64, 100]) {
      const what = settings([box(95, 38, 10, 62, height)]);
      const found = clearLinks(path, what);
      expect(near(found, what)).toBe(0);
      const over = rows(found).some(([, , z]) => z > 5);
      const minutes = planMotion(found, limits).minutes;
      // The other way, built by hand.
      const other = new PathBuilder();
      for (const [x, y, z, f] of rows(path)) {
        if (x === 180 && z === 5 && other.x === 20)
          for (const [px, py, pz] of over
            ? [
                [90, 33, 5],
                [110, 33, 5],
              ]
            : [
                [20, 50, height + 2],
                [180, 50, height + 2],
              ])
            other.rapid(px, py, pz);
        if (f > 0) other.to(x, y, z, f);
        else other.rapid(x, y, z);
      }
      expect(minutes).toBeLessThanOrEqual(planMotion(other.done(), limits).minutes + 1e-9);
    }
  });
  test('where the bit stands too near already, only up is safe', () => {
    const path = dots([
      [88, 50],
      [20, 50],
    ]);
    const what = settings([box(90, 40, 20, 20, 50)]);
    const heights = rows(clearLinks(path, what)).map(([, , z]) => z);
    expect(Math.max(...heights)).toBe(52);
  });
  test('any places and clamps: no link comes near, and all that is cut stays as it was', () => {
    const place = fc.tuple(fc.integer({ min: 5, max: 195 }), fc.integer({ min: 5, max: 95 }));
    const keepOut = fc
      .tuple(fc.integer({ min: -10, max: 190 }), fc.integer({ min: -10, max: 90 }), fc.integer({ min: 1, max: 40 }))
      .map(([x, y, height]) => box(x, y, 15, 12, height));
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 2, maxLength: 12 }),
        fc.array(keepOut, { maxLength: 6 }),
        (places, keepOuts) => {
          const path = dots(places);
          const what = settings(keepOuts);
          const found = clearLinks(path, what);
          expect(near(found, what)).toBe(0);
          const cut = (p: Path) => rows(p).filter(([, , , f]) => f > 0);
          expect(cut(found)).toEqual(cut(path));
          expect(rows(found).at(-1)).toEqual(rows(path).at(-1));
        },
      ),
      { numRuns: 120, seed: 11 },
    );
  });
  test('points keep track of where they went, so that a dwell stays at the bottom of its hole', () => {
    const path = dots([
      [20, 50],
      [180, 50],
      [20, 60],
    ]);
    const found = clearing(path, settings([box(90, -10, 20, 120, 8)]));
    const at = (p: Path, i: number) => rows(p)[i];
    for (let i = 0; i < path.feed.length; i++) expect(at(found.path, found.pointNow(i))).toEqual(at(path, i));
    expect(found.path.feed.length).toBeGreaterThan(path.feed.length);
    const same = clearing(path, settings([]));
    expect([0, 3, 7].map(same.pointNow)).toEqual([0, 3, 7]);
  });
});

test('where something may lie free it is gone over, never round, and at least so high', () => {
  const clamp = box(90, 48, 20, 6, 30);
  const path = dots([
    [50, 50],
    [150, 50],
  ]);
  const highest = ({ xyz }: Path) => Math.max(...xyz.filter((_, i) => i % 3 === 2));
  const round = clearLinks(path, settings([clamp]));
  expect(highest(round)).toBe(5);
  const over = clearLinks(path, { ...settings([clamp]), atLeast: 40 });
  expect(highest(over)).toBe(40);
  // Across only as high as that.
  for (let i = 1; i < over.feed.length; i++) {
    const moved = over.xyz[3 * i] !== over.xyz[3 * i - 3] || over.xyz[3 * i + 1] !== over.xyz[3 * i - 2];
    if (moved && i > 1) expect(over.xyz[3 * i + 2]).toBe(40);
  }
});
