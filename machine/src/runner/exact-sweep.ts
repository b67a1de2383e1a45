import Flatbush from 'flatbush';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';

/** A move of a bit's tip with the bit that made it, mm. */
export interface SweptMove {
  from: { x: number; y: number; z: number };
  to: { x: number; y: number; z: number };
  bit: FittedBit;
}

/**
 * What moves leave of a piece, without any grid and without the project's own sweep: over a place, the lowest that any
 * bit comes. Along one move the height of a bit's wall over a place is convex, so a search by halves finds its least.
 */
export class ExactSweep {
  private readonly bush: Flatbush;

  constructor(private readonly moves: readonly SweptMove[]) {
    this.bush = new Flatbush(Math.max(1, moves.length));
    for (const { from, to, bit } of moves) {
      const r = bit.diameter / 2;
      this.bush.add(
        Math.min(from.x, to.x) - r,
        Math.min(from.y, to.y) - r,
        Math.max(from.x, to.x) + r,
        Math.max(from.y, to.y) + r,
      );
    }
    if (moves.length === 0) this.bush.add(0, 0, 0, 0);
    this.bush.finish();
  }

  /** Height over a place, at most 0 (the top). */
  at(x: number, y: number): number {
    let lowest = 0;
    for (const k of this.bush.search(x, y, x, y)) {
      const move = this.moves[k];
      if (!move || least(move, x, y) >= lowest) continue;
      lowest = Math.min(lowest, over(move, x, y));
    }
    return lowest;
  }
}

/** Less than a move can come to over a place: its lower end, and the wall at its nearest. */
function least({ from, to, bit }: SweptMove, x: number, y: number): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const l2 = dx * dx + dy * dy;
  const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - from.x) * dx + (y - from.y) * dy) / l2)) : 0;
  const near = Math.hypot(from.x + t * dx - x, from.y + t * dy - y);
  if (near > bit.diameter / 2) return Infinity;
  const low = Math.min(from.z, to.z);
  return bit.halfAngle === undefined ? low : low + Math.max(0, near - bit.tipDiameter / 2) / Math.tan(bit.halfAngle);
}

function over({ from, to, bit }: SweptMove, x: number, y: number): number {
  const radius = bit.diameter / 2;
  const flat = bit.halfAngle === undefined ? radius : bit.tipDiameter / 2;
  const rise = bit.halfAngle === undefined ? 0 : 1 / Math.tan(bit.halfAngle);
  const [dx, dy, dz] = [to.x - from.x, to.y - from.y, to.z - from.z];
  const height = (t: number): number => {
    const d = Math.hypot(from.x + dx * t - x, from.y + dy * t - y);
    return d > radius + 1e-9 ? Infinity : from.z + dz * t + Math.max(0, d - flat) * rise;
  };
  const inside = (reach: number): [number, number] | undefined => {
    const a = dx * dx + dy * dy;
    const b = (from.x - x) * dx + (from.y - y) * dy;
    const c = (from.x - x) ** 2 + (from.y - y) ** 2 - reach * reach;
    if (a < 1e-18) return c <= 1e-9 ? [0, 1] : undefined;
    const root = b * b - a * c;
    if (root < 0) return undefined;
    const s = Math.sqrt(root);
    const [low, high] = [Math.max(0, (-b - s) / a), Math.min(1, (-b + s) / a)];
    return low <= high ? [low, high] : undefined;
  };
  const reached = inside(radius);
  if (!reached) return Infinity;
  let [low, high] = reached;
  let found = Math.min(height(low), height(high));
  for (let k = 0; k < 45; k++) {
    const third = (high - low) / 3;
    if (height(low + third) < height(high - third)) high -= third;
    else low += third;
  }
  found = Math.min(found, height((low + high) / 2));
  return found;
}
