import { Clearance } from './clearance.ts';
import type { Loops } from './clipper.ts';
import { contains } from './outline.ts';

/** How near to an area's edge a line is cut, mm. */
const EDGE = 0.005;

/** Even-odd test against all loops of an area. */
export function insideArea(area: Loops, x: number, y: number): boolean {
  let inside = false;
  for (const loop of area) if (contains(loop, x, y)) inside = !inside;
  return inside;
}

/**
 * The stretches of a closed loop that lie inside an area (or outside it), cut at its edge to five micrometres.
 * The whole loop comes back closed, repeating its first point, where it does not leave the area.
 *
 * @param side true keeps what is inside.
 * @example a square half covered by the area: one open line along the covered half
 */
export function stretchesOf(loop: Float64Array, area: Loops, side: boolean): { points: number[]; whole: boolean }[] {
  const n = loop.length / 2;
  if (area.length === 0) return side ? [] : [{ points: [...loop, loop[0], loop[1]], whole: true }];
  const edge = Clearance.ofLoops(area);
  const keep = (x: number, y: number) => insideArea(area, x, y) === side;
  const out: number[][] = [];
  let open: number[] | undefined;
  let leaves = false;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const ax = loop[2 * i];
    const ay = loop[2 * i + 1];
    const dx = loop[2 * j] - ax;
    const dy = loop[2 * j + 1] - ay;
    const length = Math.hypot(dx, dy);
    let here = keep(ax, ay);
    if (here) {
      if (!open) out.push((open = []));
      open.push(ax, ay);
    } else {
      open = undefined;
      leaves = true;
    }
    // A step as long as the edge is away cannot cross it.
    for (let s = 0; s < length;) {
      const away = Math.max(EDGE, edge.at(ax + (dx * s) / length, ay + (dy * s) / length));
      s += away;
      if (s >= length) break;
      const x = ax + (dx * s) / length;
      const y = ay + (dy * s) / length;
      const now = keep(x, y);
      if (now === here) continue;
      here = now;
      if (now) out.push((open = [x, y]));
      else {
        open!.push(x, y);
        open = undefined;
        leaves = true;
      }
    }
  }
  if (!leaves) return [{ points: [...loop, loop[0], loop[1]], whole: true }];
  // The stretch over the loop's own start is one, not two.
  if (open && out.length > 1 && keep(loop[0], loop[1])) open.push(...out.shift()!);
  else if (open) open.push(loop[0], loop[1]);
  return out.filter((points) => points.length >= 4).map((points) => ({ points, whole: false }));
}
