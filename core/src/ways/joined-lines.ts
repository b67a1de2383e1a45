import Flatbush from 'flatbush';
import type { Outline } from '../geometry/outline.ts';
import { crossedLines } from './crossed-lines.ts';
import { loopBridges } from './loop-bridges.ts';
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
 * Runs that together go along all lines, open and closed. Lines whose ends lie within `join` of each other are joined, and
 * loops that come so near to each other, by
 * the shortest bridges, and where three ends or more meet, the runs are those with the fewest lifts; a line is gone over
 * twice where that is cheaper than a lift.
 *
 * @param join mm; 0 joins ends that are the same only.
 * @param lift what a lift, a move over and a plunge cost, in mm at the feed; 0 goes over no line twice.
 * @param meet where a run may go over from one line to another: at their ends, or wherever they cross, too.
 * @example joinedLines([{ points: [0, 0, 5, 0], closed: false }, { points: [9, 0, 5.1, 0], closed: false }], 0.2, 20).length
 *   // 1
 */
export function joinedLines(
  drawn: readonly (Pick<Outline, 'closed'> & { points: ArrayLike<number> })[],
  join: number,
  lift: number,
  meet: 'ends' | 'crossings' = 'ends',
): Run[] {
  const crossed = meet === 'crossings' ? crossedLines(drawn, join) : { lines: drawn, bridges: [] };
  const bridged = loopBridges(crossed.lines, join);
  const across = [...crossed.bridges, ...bridged.bridges];
  const lines = [...bridged.lines, ...across];
  const x: number[] = [];
  const y: number[] = [];
  const edges: number[] = [];
  /** Nodes at which open lines end. */
  const ends: number[] = [];
  for (const [k, { points, closed }] of lines.entries()) {
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
    else if (lines.length - across.length > k) ends.push(first, last);
  }
  const one = meet === 'crossings' || across.length > 0 ? samePlaces(x, y) : Array.from(x, (_, n) => n);
  for (const [a, b, apart] of bridges(ends, x, y, Math.max(join, SAME)))
    if (apart < SAME && meet === 'ends') one[b] = one[a];
    else edges.push(one[a], one[b]);
  // A side between two places that are one is none.
  const named = Uint32Array.from(sidesOf(edges, one));
  const length = Float64Array.from({ length: named.length / 2 }, (_, e) =>
    Math.hypot(x[named[2 * e]] - x[named[2 * e + 1]], y[named[2 * e]] - y[named[2 * e + 1]]),
  );
  return grooveRoute(x.length, named, length, lift).map((walk) => ({
    points: Float64Array.from({ length: 2 * walk.length }, (_, i) => (i % 2 ? y : x)[walk[i >> 1]]),
    closed: walk.length > 2 && walk[0] === walk[walk.length - 1],
  }));
}

/** The sides of a graph whose nodes have other names, without those that lead nowhere. */
function sidesOf(edges: readonly number[], one: readonly number[]): number[] {
  const out: number[] = [];
  for (let e = 0; e < edges.length; e += 2)
    if (one[edges[e]] !== one[edges[e + 1]]) out.push(one[edges[e]], one[edges[e + 1]]);
  return out;
}

/** For every node the first one at its place. */
function samePlaces(x: readonly number[], y: readonly number[]): number[] {
  const one = Array.from(x, (_, n) => n);
  if (x.length === 0) return one;
  const bush = new Flatbush(x.length);
  for (let n = 0; n < x.length; n++) bush.add(x[n], y[n], x[n], y[n]);
  bush.finish();
  for (let n = 0; n < x.length; n++) {
    if (one[n] !== n) continue;
    for (const other of bush.search(x[n] - SAME, y[n] - SAME, x[n] + SAME, y[n] + SAME)) if (other > n) one[other] = n;
  }
  return one;
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
