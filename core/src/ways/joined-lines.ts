import Flatbush from 'flatbush';
import type { Outline } from '../geometry/outline.ts';
import { grooveRoute } from './groove-route.ts';

/** Points nearer to each other than this are one, mm. */
const SAME = 1e-6;

/** A run along lines without a lift: x, y of its points. */
export interface Run {
  points: Float64Array;
  /** Ends where it began. */
  closed: boolean;
}

/**
 * Runs that together go along all lines, open and closed. Lines whose ends lie within `join` of each other are joined, by
 * the shortest bridges, and where three ends or more meet, the runs are those with the fewest lifts; a line is gone over
 * twice where that is cheaper than a lift.
 *
 * @param join mm; 0 joins ends that are the same only.
 * @param lift what a lift, a move over and a plunge cost, in mm at the feed.
 * @example joinedLines([{ points: [0, 0, 5, 0], closed: false }, { points: [9, 0, 5.1, 0], closed: false }], 0.2, 20).length
 *   // 1
 */
export function joinedLines(
  lines: readonly (Pick<Outline, 'closed'> & { points: ArrayLike<number> })[],
  join: number,
  lift: number,
): Run[] {
  const x: number[] = [];
  const y: number[] = [];
  const edges: number[] = [];
  /** Nodes at which open lines end. */
  const ends: number[] = [];
  for (const { points, closed } of lines) {
    const first = x.length;
    for (let i = 0; i < points.length; i += 2) {
      const n = x.length;
      if (n > first && Math.hypot(points[i] - x[n - 1], points[i + 1] - y[n - 1]) < SAME) continue;
      x.push(points[i]);
      y.push(points[i + 1]);
      if (n > first) edges.push(n - 1, n);
    }
    const last = x.length - 1;
    if (last === first) {
      // A point is no line.
      x.length = y.length = first;
      continue;
    }
    if (closed && Math.hypot(x[first] - x[last], y[first] - y[last]) >= SAME) edges.push(last, first);
    else if (closed) edges[edges.length - 1] = first;
    else ends.push(first, last);
  }
  const one = Array.from(x, (_, n) => n);
  for (const [a, b, apart] of bridges(ends, x, y, Math.max(join, SAME)))
    if (apart < SAME) one[b] = one[a];
    else edges.push(one[a], one[b]);
  const named = Uint32Array.from(edges, (n) => one[n]);
  const length = Float64Array.from({ length: named.length / 2 }, (_, e) =>
    Math.hypot(x[named[2 * e]] - x[named[2 * e + 1]], y[named[2 * e]] - y[named[2 * e + 1]]),
  );
  return grooveRoute(x.length, named, length, lift).map((walk) => ({
    points: Float64Array.from({ length: 2 * walk.length }, (_, i) => (i % 2 ? y : x)[walk[i >> 1]]),
    closed: walk.length > 2 && walk[0] === walk[walk.length - 1],
  }));
}

/** The shortest bridges between ends that make one of all that lie within `join` of each other (Kruskal 1956). */
function bridges(
  ends: readonly number[],
  x: readonly number[],
  y: readonly number[],
  join: number,
): [number, number, number][] {
  if (ends.length < 2) return [];
  const bush = new Flatbush(ends.length);
  for (const n of ends) bush.add(x[n], y[n], x[n], y[n]);
  bush.finish();
  const pairs: [number, number, number][] = [];
  ends.forEach((n, k) => {
    for (const other of bush.search(x[n] - join, y[n] - join, x[n] + join, y[n] + join)) {
      const apart = Math.hypot(x[ends[other]] - x[n], y[ends[other]] - y[n]);
      if (other > k && apart <= join) pairs.push([n, ends[other], apart]);
    }
  });
  pairs.sort((a, b) => a[2] - b[2]);
  const root = new Map<number, number>();
  const rootOf = (n: number): number => {
    let top = n;
    for (let up = root.get(top); up !== undefined; up = root.get(top)) top = up;
    for (let k = n; k !== top;) {
      const up = root.get(k)!;
      root.set(k, top);
      k = up;
    }
    return top;
  };
  return pairs.filter(([a, b]) => {
    const [ra, rb] = [rootOf(a), rootOf(b)];
    if (ra === rb) return false;
    root.set(rb, ra);
    return true;
  });
}
