import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { insideArea } from '../geometry/stretches.ts';
import { checkMoves } from '../motion/too-many-moves.ts';
import type { Track } from '../motion/track.ts';

/** Every line is held against every point: a minute's work. */
const MOST_LOOKS = 2e10;

/** Less than any rounding of a program, mm. */
const WITHIN = 1e-6;

/**
 * Parallel lines through an area, joined into back-and-forth tracks wherever the way from one line's end to the next
 * line stays in the area.
 *
 * @param angle direction of the lines, radians from x.
 * @param step distance between lines, mm.
 * @param rows whether lines lie a little closer, so that they fill the area evenly from its first to its last place, or
 *   just a step apart, as far from the one side as from the other.
 */
export function scanLines(
  area: Loops,
  angle: number,
  step: number,
  z: number,
  rows: 'even' | 'exact' = 'even',
): Track[] {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  // Turned so that lines run along u.
  const turned = area.map((loop) => {
    const out = new Float64Array(loop.length);
    for (let i = 0; i < loop.length; i += 2) {
      out[i] = loop[i] * c + loop[i + 1] * s;
      out[i + 1] = -loop[i] * s + loop[i + 1] * c;
    }
    return out;
  });
  let low = Infinity;
  let high = -Infinity;
  for (const loop of turned)
    for (let i = 1; i < loop.length; i += 2) {
      low = Math.min(low, loop[i]);
      high = Math.max(high, loop[i]);
    }
  const edge = turned.length ? Clearance.ofLoops(turned) : undefined;
  const stays = (ax: number, ay: number, bx: number, by: number) => {
    const length = Math.hypot(bx - ax, by - ay);
    for (let t = 0; t < length;) {
      const x = ax + ((bx - ax) * t) / length;
      const y = ay + ((by - ay) * t) / length;
      const away = edge!.at(x, y);
      if (away > 0.002 && !insideArea(turned, x, y)) return false;
      t += Math.max(away, 0.02);
    }
    return true;
  };
  const count = Math.max(
    1,
    rows === 'even' ? Math.ceil((high - low) / step) : Math.floor((high - low) / step + 1e-6) + 1,
  );
  checkMoves(2 * count, 'step');
  const points = turned.reduce((sum, loop) => sum + loop.length / 2, 0);
  if (count * points > MOST_LOOKS) checkMoves(Infinity, 'step');
  const tracks: { points: number[] }[] = [];
  let before: { points: number[] }[] = [];
  for (let row = 0; row < count; row++) {
    const v =
      rows === 'even'
        ? low + ((row + 0.5) * (high - low)) / count
        : // A row along a side lies just within it.
          Math.min(high - WITHIN, Math.max(low + WITHIN, (low + high) / 2 + (row - (count - 1) / 2) * step));
    const crossings: number[] = [];
    for (const loop of turned)
      for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2)
        if (loop[i + 1] > v !== loop[j + 1] > v)
          crossings.push(loop[j] + ((loop[i] - loop[j]) * (v - loop[j + 1])) / (loop[i + 1] - loop[j + 1]));
    crossings.sort((a, b) => a - b);
    const here: { points: number[] }[] = [];
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const [a, b] = [crossings[k], crossings[k + 1]];
      if (b - a < 1e-4) continue;
      // The nearer end first; the other where only that can be reached straight.
      let entry = a;
      const joins = before.find((t) => {
        if (here.includes(t)) return false;
        const px = t.points[t.points.length - 2];
        const py = t.points[t.points.length - 1];
        const ends = Math.abs(a - px) < Math.abs(b - px) ? [a, b] : [b, a];
        const reached = ends.find((u) => Math.abs(u - px) < 3 * step && stays(px, py, u, v));
        if (reached === undefined) return false;
        entry = reached;
        return true;
      });
      if (joins) {
        joins.points.push(entry, v, entry === a ? b : a, v);
        here.push(joins);
      } else {
        const track = { points: row % 2 ? [b, v, a, v] : [a, v, b, v] };
        tracks.push(track);
        here.push(track);
      }
    }
    before = here;
  }
  return tracks.map(({ points }) => {
    const xyz = new Float64Array((points.length / 2) * 3);
    for (let i = 0, j = 0; i < points.length; i += 2, j += 3) {
      xyz[j] = points[i] * c - points[i + 1] * s;
      xyz[j + 1] = points[i] * s + points[i + 1] * c;
      xyz[j + 2] = z;
    }
    return { xyz, closed: false, ring: 0, oneWay: false };
  });
}
