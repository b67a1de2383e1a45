import { planMotion } from '../motion/plan.ts';
import { pathAlong } from '../motion/path.ts';
import type { Limits } from '../document/limits.ts';
import type { Bounds } from '../geometry/outline.ts';
import { contains } from '../geometry/outline.ts';

/** A piece that was cut free, by the kerf round it: it may lie tipped, and nothing travels over it low. */
interface Piece {
  points: Float64Array;
  bounds: Bounds;
  hull: Float64Array;
  /** Corners of the smallest convex outline round it, a room outside it. */
  corners: number[];
}

export interface LinkSettings {
  /** Height of links, and of those over a piece that was cut free, mm over the sheet. */
  low: number;
  high: number;
  /** Room beside a freed piece, mm. */
  room: number;
  limits: Limits;
}

/** More pieces than this in the way, and a way round is not looked for. */
const MOST_ROUND = 6;

/** How far over a piece's edge counts as beside it, mm: its kerf is as wide. */
const BESIDE = 0.05;

/**
 * What has been cut free so far, and the links that keep off it: straight where nothing lies in the way, round what does
 * at the height of links, or over it at the greater height, whichever takes the machine less time.
 */
export class Freed {
  private readonly pieces: Piece[] = [];

  constructor(private readonly settings: LinkSettings) {}

  add(points: Float64Array, bounds: Bounds): void {
    const convex = hull(points);
    this.pieces.push({
      points,
      bounds,
      hull: Float64Array.from(convex),
      corners: widened(convex, this.settings.room),
    });
  }

  /** Whether a straight way at the height of links would pass over a piece that was cut free. */
  crosses(ax: number, ay: number, bx: number, by: number): boolean {
    return this.pieces.some((piece) => over(piece, ax, ay, bx, by));
  }

  /**
   * The way from a to b: x, y and z of the points after a, which is at the height of links.
   * @example nothing cut free yet: [bx, by, low]
   */
  way(ax: number, ay: number, bx: number, by: number): number[] {
    const { low, high, limits } = this.settings;
    const met = this.pieces.filter((piece) => over(piece, ax, ay, bx, by));
    if (met.length === 0) return [bx, by, low];
    const lifted = [ax, ay, high, bx, by, high, bx, by, low];
    const round = met.length > MOST_ROUND ? undefined : this.round(ax, ay, bx, by, met);
    if (!round) return lifted;
    const minutes = (way: number[]) => planMotion(pathAlong(Float64Array.of(ax, ay, low, ...way)), limits).minutes;
    return minutes(round) <= minutes(lifted) ? round : lifted;
  }

  /** The shortest way at the height of links over the corners of what is in the way (Dijkstra 1959). */
  private round(ax: number, ay: number, bx: number, by: number, met: Piece[]): number[] | undefined {
    // Round a piece its convex outline is enough, unless an end lies in a bay of it.
    const kept = ({ points, bounds, hull: convex }: Piece) => ({
      points: contains(convex, ax, ay) || contains(convex, bx, by) ? points : convex,
      bounds,
    });
    const looked = [...met];
    for (let tries = 0; tries < 3; tries++) {
      const xy = [ax, ay, bx, by, ...looked.flatMap(({ corners }) => corners)];
      const n = xy.length / 2;
      const cost = new Array<number>(n).fill(Infinity);
      const from = new Array<number>(n).fill(-1);
      const done = new Array<boolean>(n).fill(false);
      const inTheWay = looked.map(kept);
      cost[0] = 0;
      for (;;) {
        let here = -1;
        for (let k = 0; k < n; k++) if (!done[k] && cost[k] < Infinity && (here < 0 || cost[k] < cost[here])) here = k;
        if (here < 0) return undefined;
        if (here === 1) break;
        done[here] = true;
        for (let k = 1; k < n; k++) {
          if (done[k]) continue;
          const then = cost[here] + Math.hypot(xy[2 * k] - xy[2 * here], xy[2 * k + 1] - xy[2 * here + 1]);
          if (then >= cost[k]) continue;
          if (inTheWay.some((piece) => over(piece, xy[2 * here], xy[2 * here + 1], xy[2 * k], xy[2 * k + 1]))) continue;
          [cost[k], from[k]] = [then, here];
        }
      }
      const way: number[] = [];
      for (let k = 1; k > 0; k = from[k]) way.unshift(xy[2 * k], xy[2 * k + 1], this.settings.low);
      // On the way round others may lie.
      const more = this.pieces.filter(
        (piece) =>
          !looked.includes(piece) &&
          way.some((_, i) => {
            if (i % 3) return false;
            const [px, py] = i === 0 ? [ax, ay] : [way[i - 3], way[i - 2]];
            return over(piece, px, py, way[i], way[i + 1]);
          }),
      );
      if (more.length === 0) return way;
      looked.push(...more);
      if (looked.length > MOST_ROUND) return undefined;
    }
    return undefined;
  }
}

/** Whether a straight line passes over a piece by more than its edge. */
function over(
  { points, bounds }: Pick<Piece, 'points' | 'bounds'>,
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  if (Math.max(ax, bx) < bounds.minX || Math.min(ax, bx) > bounds.maxX) return false;
  if (Math.max(ay, by) < bounds.minY || Math.min(ay, by) > bounds.maxY) return false;
  const [dx, dy] = [bx - ax, by - ay];
  const length = Math.hypot(dx, dy);
  if (length < BESIDE) return false;
  const at = [0, 1];
  for (let n = points.length, i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [ex, ey] = [points[i] - points[j], points[i + 1] - points[j + 1]];
    const det = dx * ey - dy * ex;
    if (det === 0) continue;
    const [wx, wy] = [points[j] - ax, points[j + 1] - ay];
    const t = (wx * ey - wy * ex) / det;
    const u = (wx * dy - wy * dx) / det;
    if (t > 0 && t < 1 && u >= 0 && u <= 1) at.push(t);
  }
  at.sort((a, b) => a - b);
  for (let k = 1; k < at.length; k++) {
    if ((at[k] - at[k - 1]) * length <= BESIDE) continue;
    const t = (at[k] + at[k - 1]) / 2;
    if (contains(points, ax + t * dx, ay + t * dy)) return true;
  }
  return false;
}

/** The convex outline round some points, counter-clockwise (Andrew 1979). */
function hull(points: Float64Array): number[] {
  const order = Array.from({ length: points.length / 2 }, (_, i) => i).sort(
    (a, b) => points[2 * a] - points[2 * b] || points[2 * a + 1] - points[2 * b + 1],
  );
  const half = (indices: readonly number[]) => {
    const out: number[] = [];
    for (const i of indices) {
      while (out.length >= 2) {
        const [p, q] = [out[out.length - 2], out[out.length - 1]];
        const turn =
          (points[2 * q] - points[2 * p]) * (points[2 * i + 1] - points[2 * p + 1]) -
          (points[2 * q + 1] - points[2 * p + 1]) * (points[2 * i] - points[2 * p]);
        if (turn > 1e-12) break;
        out.pop();
      }
      out.push(i);
    }
    return out.slice(0, -1);
  };
  return [...half(order), ...half(order.toReversed())].flatMap((i) => [points[2 * i], points[2 * i + 1]]);
}

/** At most so many corners: a round piece has hundreds. */
const MOST_CORNERS = 10;

/** The corners of a convex outline, a room outside it. */
function widened(hull: readonly number[], room: number): number[] {
  const n = hull.length / 2;
  if (n < 3) return [...hull];
  let [cx, cy] = [0, 0];
  for (let i = 0; i < n; i++) [cx, cy] = [cx + hull[2 * i] / n, cy + hull[2 * i + 1] / n];
  const step = Math.max(1, n / MOST_CORNERS);
  const out: number[] = [];
  let reach = 0;
  for (let i = 0; i < n; i++) reach = Math.max(reach, Math.hypot(hull[2 * i] - cx, hull[2 * i + 1] - cy));
  // Corners left out must not be cut off by the chords between those that stay.
  const more = step > 1 ? reach * (1 / Math.cos(Math.PI / MOST_CORNERS) - 1) : 0;
  for (let f = 0; f < n; f += step) {
    const i = Math.floor(f);
    const [dx, dy] = [hull[2 * i] - cx, hull[2 * i + 1] - cy];
    const d = Math.hypot(dx, dy) || 1;
    out.push(hull[2 * i] + ((room + more) * dx) / d, hull[2 * i + 1] + ((room + more) * dy) / d);
  }
  return out;
}
