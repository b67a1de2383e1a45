import Flatbush from 'flatbush';
import { distanceToSegment } from './distance-to-segment.ts';
import type { Region } from './regions.ts';

/**
 * A region's loops as one run of vertices, the inside on the left of every segment. Segment `i` goes from vertex `i`
 * to vertex `next[i]`.
 */
export interface RegionOutline {
  count: number;
  x: Float64Array;
  y: Float64Array;
  next: Int32Array;
  previous: Int32Array;
  /** Turn at each vertex, radians; positive where the region's corner is convex. */
  turn: Float64Array;
  /** Diagonal of the region's box, mm. */
  size: number;
}

/** The vertices of a region, without points that repeat their neighbour. */
export function regionOutline({ loops, bounds }: Region): RegionOutline {
  let most = 0;
  for (const loop of loops) most += loop.length / 2;
  const x = new Float64Array(most);
  const y = new Float64Array(most);
  const next = new Int32Array(most);
  const previous = new Int32Array(most);
  let count = 0;
  for (const loop of loops) {
    const first = count;
    for (let i = 0; i < loop.length; i += 2) {
      if (count > first && x[count - 1] === loop[i] && y[count - 1] === loop[i + 1]) continue;
      x[count] = loop[i];
      y[count] = loop[i + 1];
      count++;
    }
    while (count > first + 1 && x[count - 1] === x[first] && y[count - 1] === y[first]) count--;
    if (count - first < 3) {
      count = first;
      continue;
    }
    for (let i = first; i < count; i++) {
      next[i] = i + 1 < count ? i + 1 : first;
      previous[i] = i > first ? i - 1 : count - 1;
    }
  }
  const turn = new Float64Array(count);
  for (let i = 0; i < count; i++) turn[i] = turnAt(x, y, previous[i], i, next[i]);
  const size = Math.hypot(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY);
  return { count, x, y, next, previous, turn, size };
}

function turnAt(x: Float64Array, y: Float64Array, p: number, i: number, q: number): number {
  const ux = x[i] - x[p];
  const uy = y[i] - y[p];
  const vx = x[q] - x[i];
  const vy = y[q] - y[i];
  return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
}

/** Whether a corner is the tip of a needle of the region, thinner than this, mm: there is nothing in it. */
function isNeedle({ x, y, next, previous, turn }: RegionOutline, i: number, least: number): boolean {
  const [ux, uy] = [x[previous[i]] - x[i], y[previous[i]] - y[i]];
  const [vx, vy] = [x[next[i]] - x[i], y[next[i]] - y[i]];
  const longer = Math.max(Math.hypot(ux, uy), Math.hypot(vx, vy));
  return turn[i] > Math.PI / 2 && Math.abs(ux * vy - uy * vx) < least * longer;
}

/**
 * Leaves out vertices that are nearer than this to the one before them, mm, and the tips of needles that are thinner, but
 * three of every loop. Returns how many.
 */
export function dropNear(outline: RegionOutline, least: number): number {
  const { count, x, y, previous } = outline;
  const [keptX, keptY, after, before]: number[][] = [[], [], [], []];
  for (let start = 0; start < count; start = previous[start] + 1) {
    const first = keptX.length;
    let left = previous[start] - start + 1;
    for (let i = start; i <= previous[start]; i++) {
      const k = keptX.length - 1;
      const toLast = k < first ? Infinity : Math.hypot(x[i] - keptX[k], y[i] - keptY[k]);
      const toFirst =
        i < previous[start] || k < first ? Infinity : Math.hypot(x[i] - keptX[first], y[i] - keptY[first]);
      if (left > 3 && (Math.min(toLast, toFirst) < least || isNeedle(outline, i, least))) {
        left--;
        continue;
      }
      keptX.push(x[i]);
      keptY.push(y[i]);
    }
    const end = keptX.length;
    for (let k = first; k < end; k++) {
      after.push(k + 1 < end ? k + 1 : first);
      before.push(k > first ? k - 1 : end - 1);
    }
  }
  outline.count = keptX.length;
  outline.x = Float64Array.from(keptX);
  outline.y = Float64Array.from(keptY);
  outline.next = Int32Array.from(after);
  outline.previous = Int32Array.from(before);
  outline.turn = outline.x.map((_, i) => turnAt(outline.x, outline.y, before[i], i, after[i]));
  return count - outline.count;
}

/** Further off a segment than this a vertex lies on the side on which it is seen, mm: nearer, walls may have crossed by rounding. */
const BESIDE = 0.0005;

/**
 * Moves every vertex that lies on a segment or vertex elsewhere (loops that touch, walls that cross by rounding) away
 * from it, to the side from which its own neighbours come: a hole away from the outline that it touches, and two lobes
 * that meet in a point away from each other. Returns how many were moved.
 * @param nudge how near a vertex is moved, and how far, mm.
 */
export function partTouching(outline: RegionOutline, nudge: number): number {
  const { count, x, y, next, previous } = outline;
  const byX = new Float64Array(count);
  const byY = new Float64Array(count);
  const segments = new Flatbush(count);
  for (let s = 0; s < count; s++) {
    const q = next[s];
    segments.add(Math.min(x[s], x[q]), Math.min(y[s], y[q]), Math.max(x[s], x[q]), Math.max(y[s], y[q]));
  }
  segments.finish();
  for (let i = 0; i < count; i++)
    for (const s of segments.search(x[i] - nudge, y[i] - nudge, x[i] + nudge, y[i] + nudge).sort((a, b) => a - b)) {
      const q = next[s];
      if (s === i || q === i) continue;
      if (distanceToSegment(x[i], y[i], x[s], y[s], x[q], y[q]) >= nudge) continue;
      const length = Math.hypot(x[q] - x[s], y[q] - y[s]);
      const [nx, ny] = [-(y[q] - y[s]) / length, (x[q] - x[s]) / length];
      const leftOf = (n: number) => (x[n] - x[i]) * nx + (y[n] - y[i]) * ny;
      // Where its neighbours lie along the segment, the inside does: on the left of it. Those that are its ends say nothing.
      const beside = [next[i], previous[i]].reduce((sum, n) => sum + (n === s || n === q ? 0 : leftOf(n)), 0);
      const off = -leftOf(s);
      const seen = Math.abs(beside) <= nudge && Math.abs(off) > BESIDE;
      const side = seen ? Math.sign(off) : beside < -nudge ? -1 : 1;
      byX[i] += side * nx;
      byY[i] += side * ny;
    }
  const moves: [vertex: number, dx: number, dy: number][] = [];
  for (let i = 0; i < count; i++) {
    const apart = fromOtherVertices(outline, nearVertices(outline, segments, i), i);
    const [toX, toY] = apart ?? [byX[i], byY[i]];
    const n = Math.hypot(toX, toY);
    if (n < 1e-9) continue;
    moves.push([i, (nudge * toX) / n, (nudge * toY) / n]);
  }
  for (const [i, dx, dy] of moves) {
    x[i] += dx;
    y[i] += dy;
  }
  return moves.length;
}

/** Vertices nearer than this are at one place, mm. */
const ONE_PLACE = 1e-5;

/** Other vertices at the place of one. */
function nearVertices({ x, y, next }: RegionOutline, segments: Flatbush, i: number): number[] {
  return segments
    .search(x[i] - ONE_PLACE, y[i] - ONE_PLACE, x[i] + ONE_PLACE, y[i] + ONE_PLACE)
    .filter((s) => s !== i && next[s] !== i && Math.hypot(x[s] - x[i], y[s] - y[i]) < ONE_PLACE);
}

/**
 * Where a vertex goes that shares its place with others: into the one of its two angles in which no wall of theirs lies, so
 * that it comes away from all of them. Nothing where it shares its place with none, or has them on both sides.
 */
function fromOtherVertices(
  { x, y, next, previous }: RegionOutline,
  others: number[],
  i: number,
): [number, number] | undefined {
  if (others.length === 0) return undefined;
  const angleTo = (from: number, n: number) => Math.atan2(y[n] - y[from], x[n] - x[from]);
  const full = 2 * Math.PI;
  const ahead = angleTo(i, next[i]);
  /** Counter-clockwise from the wall ahead, the inside's angle first. */
  const round = (angle: number) => (((angle - ahead) % full) + full) % full;
  const inside = round(angleTo(i, previous[i]));
  const rays = others.flatMap((other) => [next[other], previous[other]].map((n) => round(angleTo(other, n))));
  const within = rays.filter((ray) => ray < inside).length;
  if (within > 0 && within < rays.length) return [0, 0];
  const towards = ahead + (within === 0 ? inside / 2 : (inside + full) / 2);
  return [Math.cos(towards), Math.sin(towards)];
}
