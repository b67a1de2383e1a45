import type { Limits } from '../document/limits.ts';
import { type Path, pathAlong, PathBuilder } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { distanceToKeepOut, KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import type { Obstacle } from '../stock/obstacles.ts';

export interface ClearingSettings {
  keepOuts: readonly Obstacle[];
  /** Widest radius of the bit, mm. */
  radius: number;
  /** Ways round keep to the stock and the bit’s radius beside it, mm. */
  stock: { length: number; width: number };
  limits: Limits;
  /** Something may lie free beside the way: it is always gone over, at least so high, mm. */
  atLeast?: number;
}

/** How much nearer than wanted a way may come before it counts as too near, mm: rounding, not room. */
const SLACK = 1e-6;

/**
 * Leads the moves between cuts clear of clamps, screws and pins: where a link at the lift’s height would come too near
 * one that stands higher, the bit goes over it or round it, whichever takes the machine less time. Cutting moves stay as
 * they are; the rule about holding judges those.
 *
 * @returns the path, the same one where no link comes near anything, and the number that each of its points has now.
 * @example a link straight over a clamp 8 mm high at a lift of 5: up to 10, across, and down to 5 again
 */
export function clearLinks(
  path: Path,
  settings: ClearingSettings,
): { path: Path; pointNow: (point: number) => number } {
  const { xyz, feed, rapid, power, shades } = path;
  const high = settings.keepOuts.filter(({ height }) => height > 0);
  const asItWas = { path, pointNow: (point: number) => point };
  if (high.length === 0) return asItWas;
  const margin = settings.radius + KEEP_OUT_ROOM - SLACK;
  const builder = new PathBuilder();
  const now = new Uint32Array(feed.length);
  let changed = false;
  for (let i = 0; i < feed.length; i++) {
    const [bx, by, bz] = [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]];
    if (i > 0 && rapid[i]) {
      const [ax, ay, az] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i - 1]];
      const low = Math.min(az, bz);
      const met =
        ax === bx && ay === by
          ? []
          : high.filter((k) => k.height + KEEP_OUT_ROOM > low + SLACK && distanceToKeepOut(ax, ay, bx, by, k) < margin);
      if (met.length) {
        changed = true;
        const { atLeast } = settings;
        const over = Math.max(atLeast ?? 0, Math.max(...met.map(({ height }) => height)) + KEEP_OUT_ROOM);
        const round = atLeast === undefined ? wayRound(ax, ay, bx, by, low, settings) : undefined;
        const ways = [[ax, ay, az, ax, ay, over, bx, by, over, bx, by, bz], round];
        const best = quickest(
          ways.filter((way) => way !== undefined),
          settings.limits,
        );
        for (let k = 3; k < best.length; k += 3) builder.rapid(best[k], best[k + 1], best[k + 2]);
      }
    }
    if (rapid[i]) builder.rapid(bx, by, bz);
    else if (shades?.has(i)) builder.shaded(bx, by, bz, feed[i], shades.get(i)!);
    else builder.to(bx, by, bz, feed[i], power[i]);
    now[i] = builder.length - 1;
  }
  return changed ? { path: builder.done(), pointNow: (point) => now[point] } : asItWas;
}

function quickest(ways: readonly number[][], limits: Limits): number[] {
  const minutes = ways.map((way) => planMotion(pathAlong(Float64Array.from(way)), limits).minutes);
  return ways[minutes.indexOf(Math.min(...minutes))];
}

/** The shortest way at one height round all that stands higher (Dijkstra 1959, over the corners in sight of each other). */
function wayRound(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  z: number,
  { keepOuts, radius, stock }: ClearingSettings,
): number[] | undefined {
  const margin = radius + KEEP_OUT_ROOM;
  const inTheWay = keepOuts.filter(({ height }) => height > 0 && height + KEEP_OUT_ROOM > z + SLACK);
  const x = [ax, bx];
  const y = [ay, by];
  for (const k of inTheWay)
    for (const px of [k.x - margin, k.x + k.length + margin])
      for (const py of [k.y - margin, k.y + k.width + margin])
        if (px >= -radius && px <= stock.length + radius && py >= -radius && py <= stock.width + radius) {
          x.push(px);
          y.push(py);
        }
  const free = (p: number, q: number) =>
    inTheWay.every((k) => distanceToKeepOut(x[p], y[p], x[q], y[q], k) >= margin - SLACK);
  const cost = x.map(() => Infinity);
  const cameFrom = x.map(() => -1);
  const done = x.map(() => false);
  cost[0] = 0;
  for (;;) {
    let here = -1;
    for (let k = 0; k < x.length; k++)
      if (!done[k] && cost[k] < Infinity && (here < 0 || cost[k] < cost[here])) here = k;
    if (here < 0) return undefined;
    if (here === 1) break;
    done[here] = true;
    for (let k = 1; k < x.length; k++) {
      if (done[k]) continue;
      const then = cost[here] + Math.hypot(x[k] - x[here], y[k] - y[here]);
      if (then >= cost[k] || !free(here, k)) continue;
      cost[k] = then;
      cameFrom[k] = here;
    }
  }
  const way: number[] = [];
  for (let k = 1; k >= 0; k = cameFrom[k]) way.unshift(x[k], y[k], z);
  return way;
}
