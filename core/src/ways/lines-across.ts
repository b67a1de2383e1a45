import Flatbush from 'flatbush';
import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import type { Track } from '../motion/track.ts';

/** How many lines cross a stroke, from one of its walls to the other. */
export interface LinesAcross {
  least: number;
  usual: number;
  most: number;
}

/** Places along walls at which strokes are looked at, at most, and their distance, as a share of the line's width. */
const MOST_LOOKS = 2000;
const EVERY = 2;

/** From a wall that lies nearer to the direction of looking than this (its sine) nothing is looked at. */
const LEAST_INTO = 0.3;

/**
 * Counts how many lines of a filling lie across each stroke of an area: from places along its walls straight over to the
 * opposite one, or square to the lines where those all have one direction. Nothing where no stroke is wider than the line.
 *
 * @param width of a line, mm: strokes that are narrower have none.
 * @param direction of parallel lines, radians from x.
 * @example a bar 4.3 mm wide with rows at 0.15, 1.15, … 4.15 mm: five
 */
export function linesAcross(
  area: Loops,
  tracks: readonly Track[],
  width: number,
  direction?: number,
): LinesAcross | undefined {
  const sides = tracks.reduce((sum, { xyz }) => sum + Math.max(0, xyz.length / 3 - 1), 0);
  if (sides === 0 || area.length === 0) return undefined;
  const bush = new Flatbush(sides);
  const at = new Float64Array(4 * sides);
  let n = 0;
  for (const { xyz } of tracks)
    for (let i = 3; i < xyz.length; i += 3, n++) {
      at.set([xyz[i - 3], xyz[i - 2], xyz[i], xyz[i + 1]], 4 * n);
      bush.add(
        Math.min(xyz[i - 3], xyz[i]),
        Math.min(xyz[i - 2], xyz[i + 1]),
        Math.max(xyz[i - 3], xyz[i]),
        Math.max(xyz[i - 2], xyz[i + 1]),
      );
    }
  bush.finish();
  const edge = Clearance.ofLoops(area);
  let walls = 0;
  for (const loop of area)
    for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2)
      walls += Math.hypot(loop[i] - loop[j], loop[i + 1] - loop[j + 1]);
  const every = Math.max(EVERY * width, walls / MOST_LOOKS);
  const counts: number[] = [];
  let along = every / 2;
  for (const loop of area)
    for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
      const [dx, dy] = [loop[i] - loop[j], loop[i + 1] - loop[j + 1]];
      const long = Math.hypot(dx, dy);
      for (; along <= long; along += every) {
        const t = along / long;
        const [x, y] = [loop[j] + t * dx, loop[j + 1] + t * dy];
        // Outer loops run counter-clockwise and holes clockwise: the area lies on the left.
        const inwards = [-dy / long, dx / long];
        const square = direction === undefined ? inwards : [-Math.sin(direction), Math.cos(direction)];
        const into = square[0] * inwards[0] + square[1] * inwards[1];
        // Along a wall nothing is crossed.
        if (Math.abs(into) < LEAST_INTO) continue;
        const [nx, ny] = [square[0] * Math.sign(into), square[1] * Math.sign(into)];
        const over = acrossFrom(edge, x, y, nx, ny, width);
        if (over >= width) counts.push(crossings(bush, at, x, y, x + over * nx, y + over * ny));
      }
      along -= long;
    }
  if (counts.length === 0) return undefined;
  counts.sort((a, b) => a - b);
  return { least: counts[0], usual: counts[counts.length >> 1], most: counts[counts.length - 1] };
}

/** How far it is from a wall straight over to the opposite one, mm. */
function acrossFrom(edge: Clearance, x: number, y: number, nx: number, ny: number, width: number): number {
  const fine = width / 20;
  let s = fine;
  let inside = false;
  for (let rounds = 0; rounds < 10_000; rounds++) {
    const away = edge.at(x + s * nx, y + s * ny);
    inside ||= away > fine;
    if (inside && away < fine / 2) return s;
    // Near the wall that it came from the distance is what was gone so far.
    s += Math.max(away, fine / 4);
    if (!inside && s > width) return 0;
  }
  return 0;
}

function crossings(bush: Flatbush, at: Float64Array, ax: number, ay: number, bx: number, by: number): number {
  let count = 0;
  const [dx, dy] = [bx - ax, by - ay];
  for (const k of bush.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))) {
    const [cx, cy, ex, ey] = at.subarray(4 * k, 4 * k + 4);
    const side = (x: number, y: number) => dx * (y - ay) - dy * (x - ax);
    const [s, e] = [side(cx, cy), side(ex, ey)];
    if (s > 0 === e > 0) continue;
    // Where its side crosses the way over.
    const t = s / (s - e);
    const along = ((cx + t * (ex - cx) - ax) * dx + (cy + t * (ey - cy) - ay) * dy) / (dx * dx + dy * dy);
    if (along >= 0 && along <= 1) count++;
  }
  return count;
}
