import { MOST_MOVES } from '../motion/too-many-moves.ts';
import { CutProblem } from './cut-problem.ts';
import { downAlong, lengthOf } from './entry.ts';

/** A turn behind a ramp there and back along its beginning, no further than `free`. */
export function rampBefore(turn: readonly number[], above: number, z: number, run: number, free: number): number[] {
  const stretch: number[] = [turn[0], turn[1], z];
  let gone = 0;
  for (let i = 3; i < turn.length && gone < free; i += 3) {
    const [px, py] = [turn[i - 3], turn[i - 2]];
    const length = Math.hypot(turn[i] - px, turn[i + 1] - py);
    const t = gone + length > free ? (free - gone) / length : 1;
    gone += t * length;
    if (length > 0) stretch.push(px + t * (turn[i] - px), py + t * (turn[i + 1] - py), z);
  }
  const way = downAlong(stretch, above, run);
  return way ? [...way, ...turn] : [turn[0], turn[1], above, ...turn];
}

/** After a tab a turn goes down along its way, back, and on, instead of straight down into the wood. */
export function rampsBehindTabs(way: readonly number[], above: number, slope: number, least: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < way.length; i += 3) {
    out.push(way[i], way[i + 1], way[i + 2]);
    const j = i + 3;
    if (j >= way.length || way[j] !== way[i] || way[j + 1] !== way[i + 1]) continue;
    const top = Math.min(above, way[i + 2]);
    const z = way[j + 2];
    if (!(top > z + 1e-6)) continue;
    const stretch: number[] = [way[j], way[j + 1], z];
    for (let k = j + 3; k < way.length && Math.abs(way[k + 2] - z) < 1e-9; k += 3) stretch.push(way[k], way[k + 1], z);
    // Right before the end of the turn it has been cut already, where the turn began.
    const down =
      lengthOf(stretch, stretch.length / 3) < least ? undefined : downAlong(stretch, top, (top - z) / Math.tan(slope));
    if (down) out.push(...down);
  }
  return out;
}

/** The beginning of a turn as a ramp from `above`, and after the turn what the ramp has cut too shallow again. */
export function rampIn(points: readonly number[], above: number, z: number, slope: number, overlap: number): number[] {
  const run = (above - z) / Math.tan(slope);
  const out: number[] = [points[0], points[1], above];
  let gone = 0;
  let turns = 0;
  for (let i = 3; ; i += 3) {
    if (i >= points.length) {
      i = 3;
      if (++turns > 200 || out.length > 3 * MOST_MOVES)
        throw new CutProblem('The ramp is too shallow for so short an outline; make it steeper.');
    }
    const [px, py] = [points[i - 3], points[i - 2]];
    const length = Math.hypot(points[i] - px, points[i + 1] - py);
    if (gone + length < run) {
      gone += length;
      out.push(points[i], points[i + 1], Math.max(points[i + 2], above + ((z - above) * gone) / run));
      continue;
    }
    const t = length > 0 ? (run - gone) / length : 1;
    const [x, y] = [px + t * (points[i] - px), py + t * (points[i + 1] - py)];
    out.push(x, y, Math.max(z, points[i - 1]));
    // A whole turn at depth from here back to here.
    for (let k = i; k < points.length; k += 3) out.push(points[k], points[k + 1], points[k + 2]);
    for (let k = 3; k < i; k += 3) out.push(points[k], points[k + 1], points[k + 2]);
    out.push(x, y, Math.max(z, points[i - 1]));
    for (let left = overlap, k = i; left > 0; k = k + 3 < points.length ? k + 3 : 3) {
      const [qx, qy] = [out[out.length - 3], out[out.length - 2]];
      const far = Math.hypot(points[k] - qx, points[k + 1] - qy);
      const share = far > left ? left / far : 1;
      out.push(qx + share * (points[k] - qx), qy + share * (points[k + 1] - qy), points[k + 2]);
      left -= Math.max(far, 1e-6);
    }
    return out;
  }
}
