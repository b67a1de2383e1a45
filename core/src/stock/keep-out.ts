import type { Obstacle } from './obstacles.ts';

/** Room between the bit and what holds the work, mm, beside it and over it: what a hand can place and a board can creep. */
export const KEEP_OUT_ROOM = 2;

/** Height at which a bit passes over everything that holds the work, mm above the stock. */
export function heightOverAll(keepOuts: readonly Obstacle[], lift: number): number {
  return Math.max(lift, ...keepOuts.map(({ height }) => height + KEEP_OUT_ROOM));
}

/**
 * Distance from a straight move to a keep-out seen from above, mm; 0 where it passes over it.
 *
 * @example from (0, 0) to (10, 0), past a clamp from (4, 3) to (6, 5): 3
 */
export function distanceToKeepOut(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  { x, y, length, width }: Pick<Obstacle, 'x' | 'y' | 'length' | 'width'>,
): number {
  if (crosses(ax, ay, bx, by, x, y, x + length, y + width)) return 0;
  let least = Infinity;
  for (const [px, py] of [
    [ax, ay],
    [bx, by],
  ]) {
    const dx = Math.max(x - px, 0, px - x - length);
    const dy = Math.max(y - py, 0, py - y - width);
    least = Math.min(least, Math.hypot(dx, dy));
  }
  const ux = bx - ax;
  const uy = by - ay;
  const l2 = ux * ux + uy * uy;
  for (const px of [x, x + length])
    for (const py of [y, y + width]) {
      const t = l2 > 0 ? Math.min(1, Math.max(0, ((px - ax) * ux + (py - ay) * uy) / l2)) : 0;
      least = Math.min(least, Math.hypot(px - ax - t * ux, py - ay - t * uy));
    }
  return least;
}

/** Whether a straight move meets a box (Liang and Barsky 1984). */
function crosses(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): boolean {
  let from = 0;
  let to = 1;
  for (const [p, q] of [
    [ax - bx, ax - x0],
    [bx - ax, x1 - ax],
    [ay - by, ay - y0],
    [by - ay, y1 - ay],
  ]) {
    if (p === 0) {
      if (q < 0) return false;
      continue;
    }
    const t = q / p;
    if (p < 0) from = Math.max(from, t);
    else to = Math.min(to, t);
    if (from > to) return false;
  }
  return true;
}
