import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Track } from '../motion/track.ts';
import { grooveRoute } from '../ways/groove-route.ts';
import { orderTracks } from '../ways/order-tracks.ts';

describe('routes over an axis (route inspection, Kwan 1962)', () => {
  const walked = (walks: Int32Array[]) => {
    const seen = new Map<string, number>();
    for (const walk of walks)
      for (let i = 1; i < walk.length; i++) {
        const key = [walk[i - 1], walk[i]].sort((a, b) => a - b).join('-');
        seen.set(key, (seen.get(key) ?? 0) + 1);
      }
    return seen;
  };
  test('a T with a dear lift: one walk, the shortest arm gone over twice', () => {
    const walks = grooveRoute(4, Uint32Array.of(0, 1, 0, 2, 0, 3), Float64Array.of(5, 4, 1), 100);
    expect(walks).toHaveLength(1);
    expect(Object.fromEntries(walked(walks))).toEqual({ '0-1': 1, '0-2': 1, '0-3': 2 });
  });
  test('the same with a cheap lift: two walks, nothing twice', () => {
    const walks = grooveRoute(4, Uint32Array.of(0, 1, 0, 2, 0, 3), Float64Array.of(5, 4, 1), 0.5);
    expect(walks).toHaveLength(2);
    expect([...walked(walks).values()]).toEqual([1, 1, 1]);
  });
  test('a ring is one closed walk', () => {
    const [walk, ...more] = grooveRoute(4, Uint32Array.of(0, 1, 1, 2, 2, 3, 3, 0), Float64Array.of(1, 1, 1, 1), 10);
    expect(more).toEqual([]);
    expect(walk).toHaveLength(5);
    expect(walk[0]).toBe(walk[4]);
  });
  test('every edge of a random graph is walked, over edges only, with as many lifts as walks', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { minLength: 1, maxLength: 24 }),
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        (pairs, lift) => {
          const list = pairs.filter(([a, b]) => a !== b);
          fc.pre(list.length > 0);
          const keys = new Map<string, number>();
          for (const [a, b] of list) {
            const key = [a, b].sort((p, q) => p - q).join('-');
            keys.set(key, (keys.get(key) ?? 0) + 1);
          }
          const walks = grooveRoute(
            10,
            Uint32Array.from(list.flat()),
            Float64Array.from(list, () => 1),
            lift,
          );
          const seen = walked(walks);
          for (const [key, times] of keys) expect(seen.get(key) ?? 0).toBeGreaterThanOrEqual(times);
          for (const key of seen.keys()) expect(keys.has(key)).toBe(true);
          // No more than two walks a pair of odd nodes, and never more way than every edge twice.
          expect([...seen.values()].reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(2 * list.length);
        },
      ),
      { numRuns: 200, seed: 4 },
    );
  });
});

describe('order of tracks', () => {
  const line = (ax: number, ay: number, bx: number, by: number, oneWay = false): Track => ({
    xyz: Float64Array.of(ax, ay, -1, bx, by, -1),
    closed: false,
    ring: 0,
    oneWay,
  });
  const links = (tracks: readonly Track[], order: readonly { track: number; reversed: boolean }[]) => {
    let [x, y, total] = [0, 0, 0];
    for (const { track, reversed } of order) {
      const [ax, ay, , bx, by] = tracks[track].xyz;
      const [sx, sy, ex, ey] = reversed ? [bx, by, ax, ay] : [ax, ay, bx, by];
      total += Math.hypot(sx - x, sy - y);
      [x, y] = [ex, ey];
    }
    return total;
  };
  function* permutations(n: number, taken: number[] = []): Generator<number[]> {
    if (taken.length === n) yield taken;
    for (let k = 0; k < n; k++) if (!taken.includes(k)) yield* permutations(n, [...taken, k]);
  }
  test('a few tracks come in the best of all orders and directions', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(100), fc.nat(100), fc.nat(100), fc.nat(100)), { minLength: 1, maxLength: 5 }),
        (ends) => {
          const tracks = ends.map(([a, b, c, d]) => line(a, b, c, d));
          const order = orderTracks(tracks, { x: 0, y: 0 });
          expect([...order].map(({ track }) => track).sort()).toEqual(tracks.map((_, k) => k));
          let best = Infinity;
          for (const list of permutations(tracks.length))
            for (let bits = 0; bits < 1 << tracks.length; bits++)
              best = Math.min(
                best,
                links(
                  tracks,
                  list.map((track, i) => ({ track, reversed: (bits >> i) % 2 === 1 })),
                ),
              );
          return links(tracks, order) <= best + 1e-9;
        },
      ),
      { numRuns: 40, seed: 8 },
    );
  });
  test('a one-way track is never turned', () => {
    const order = orderTracks([line(10, 0, 0, 0, true), line(50, 0, 10, 0, true)], { x: 0, y: 0 });
    expect(order.every(({ reversed }) => !reversed)).toBe(true);
  });
  test('a row of strokes is gone along and not back to the start each time', () => {
    const tracks = Array.from({ length: 30 }, (_, k) => line((k * 7) % 30, 0, (k * 7) % 30, 10));
    // Up one, down the next: 29 steps of 1 mm.
    expect(links(tracks, orderTracks(tracks, { x: 0, y: 0 }))).toBeCloseTo(29, 6);
  });
});
