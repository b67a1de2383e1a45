import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** A place on the page, mm. */
export type Placed = readonly [x: number, y: number];

/** Depth that a move cuts at a place, by golden section: a cone's depth along a straight move has one maximum. */
export function depthUnder(
  move: Move,
  x: number,
  y: number,
  { slope, flat, clear, diameter }: Asked,
  wider = 0.012,
): number {
  const radius = (move.bit === 1 ? diameter : clear[move.bit - 2]) / 2 + wider;
  const [dx, dy] = [move.bx - move.ax, move.by - move.ay];
  const l2 = dx * dx + dy * dy;
  let [a, b] = [0, 1];
  if (l2 > 0) {
    const middle = ((x - move.ax) * dx + (y - move.ay) * dy) / l2;
    const away = ((x - move.ax) * dy - (y - move.ay) * dx) ** 2 / l2;
    if (away > radius * radius) return -1;
    const half = Math.sqrt((radius * radius - away) / l2);
    [a, b] = [Math.max(0, middle - half), Math.min(1, middle + half)];
    if (a > b) return -1;
  } else if (Math.hypot(x - move.ax, y - move.ay) > radius) return -1;
  const at = (t: number): number => {
    const z = -(move.az + t * (move.bz - move.az));
    if (move.bit !== 1 || slope === 0) return z;
    return z - Math.max(0, Math.hypot(x - move.ax - t * dx, y - move.ay - t * dy) - flat) / slope;
  };
  let best = Math.max(at(a), at(b));
  const g = (Math.sqrt(5) - 1) / 2;
  for (let k = 0; k < 24; k++) {
    const [c, d] = [b - g * (b - a), a + g * (b - a)];
    if (at(c) > at(d)) b = d;
    else a = c;
    best = Math.max(best, at((a + b) / 2));
  }
  return best;
}
