import { Refused } from './refused.ts';
import type { Point } from './point.ts';

/** Chords of an arc stay this close to it, mm. */
const ARC_TOLERANCE = 0.002;

/** More chords than this of one arc fill the memory. */
const MOST_CHORDS = 200_000;

type Axis = keyof Point;

/** The axes of each plane in the order in which its arcs turn, and the one square to it. */
export const PLANES: Record<17 | 18 | 19, readonly [Axis, Axis, Axis]> = {
  17: ['x', 'y', 'z'],
  18: ['z', 'x', 'y'],
  19: ['y', 'z', 'x'],
};

/** One arc as a block gives it, mm. */
export interface Arc {
  from: Point;
  to: Point;
  plane: 17 | 18 | 19;
  clockwise: boolean;
  /** Radius, below 0 for the longer way round; or else the centre. */
  radius?: number;
  centre?: Partial<Point>;
  /** Whole turns, 1 for an arc of one turn or less. */
  turns: number;
  /** How far the two radii may differ, mm. */
  apart: number;
  /** Largest radius, mm. */
  largest: number;
}

/** The centre of an arc that is given by its radius, in its plane. */
function centreByRadius({ from, to, plane, clockwise }: Arc, r: number): [number, number] {
  const [a, b] = PLANES[plane];
  const radius = Math.abs(r);
  const half = Math.hypot(to[a] - from[a], to[b] - from[b]) / 2;
  if (half === 0 || radius < half - 0.002) throw new Refused('The arc’s radius is too small to reach its end.');
  const h = Math.sqrt(Math.max(0, radius * radius - half * half));
  const side = clockwise === r > 0 ? 1 : -1;
  return [
    (from[a] + to[a]) / 2 + (side * h * (to[b] - from[b])) / (2 * half),
    (from[b] + to[b]) / 2 - (side * h * (to[a] - from[a])) / (2 * half),
  ];
}

/**
 * The ends of the chords that stand for an arc, its third axis going along evenly (NISTIR 6556 §3.5.3).
 *
 * @throws {Refused} where its ends do not lie on one circle, or it is too large.
 * @example the last point of an arc is its end
 */
export function arcPoints(arc: Arc): Point[] {
  const { from, to, plane, clockwise } = arc;
  const [a, b, c] = PLANES[plane];
  const [ca, cb] =
    arc.radius === undefined
      ? [arc.centre?.[a] ?? from[a], arc.centre?.[b] ?? from[b]]
      : centreByRadius(arc, arc.radius);
  const radius = Math.hypot(from[a] - ca, from[b] - cb);
  const end = Math.hypot(to[a] - ca, to[b] - cb);
  if (radius === 0 || Math.abs(radius - end) > arc.apart + 1e-9)
    throw new Refused('The arc’s centre is not equally far from its ends.');
  if (radius > arc.largest) throw new Refused('The arc’s radius is larger than a kilometre.');
  const start = Math.atan2(from[b] - cb, from[a] - ca);
  let sweep = Math.atan2(to[b] - cb, to[a] - ca) - start;
  if (clockwise && sweep >= -1e-12) sweep -= 2 * Math.PI;
  if (!clockwise && sweep <= 1e-12) sweep += 2 * Math.PI;
  sweep += (clockwise ? -2 : 2) * Math.PI * (arc.turns - 1);
  const chord = 2 * Math.acos(Math.max(0.5, 1 - ARC_TOLERANCE / radius));
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / chord));
  if (n > MOST_CHORDS) throw new Refused('The arc is too large to be followed.');
  return Array.from({ length: n }, (_, k) => {
    const i = k + 1;
    const angle = start + (sweep * i) / n;
    const at = { ...to };
    if (i < n) {
      at[a] = ca + radius * Math.cos(angle);
      at[b] = cb + radius * Math.sin(angle);
      at[c] = from[c] + ((to[c] - from[c]) * i) / n;
    }
    return at;
  });
}
