import type { Limits } from '../document/limits.ts';
import type { Path } from './path.ts';

export interface MotionPlan {
  /** Time at which each point is reached, minutes from the first. */
  at: Float64Array;
  minutes: number;
}

/** Points of a path at which the bit waits, and for how many seconds. */
export interface Dwells {
  points: readonly number[];
  seconds: number;
}

/** mm/s² to mm/min². */
const PER_MINUTE2 = 3600;

/**
 * How long a path takes on axes with limited speed and acceleration. Every move speeds up, holds and slows down with
 * constant acceleration; at corners no axis changes its speed by more than the corner step. The whole path is looked
 * ahead. A single move of length s from rest to rest takes s/v + v/a, or 2·√(s/a) where v is not reached.
 *
 * @param dwells where the bit waits; a point counts as reached when it has waited there.
 * @example two points 100 mm apart at 1200 mm/min and 100 mm/s²: 5.2 s
 */
export function planMotion({ xyz, feed, rapid }: Path, limits: Limits, dwells?: Dwells): MotionPlan {
  const n = feed.length;
  const at = new Float64Array(n);
  if (n < 2) return { at, minutes: 0 };
  const length = new Float64Array(n);
  const top = new Float64Array(n);
  const acceleration = new Float64Array(n);
  // Square of the largest speed at which each point may be passed.
  const corner2 = new Float64Array(n);
  const s = limits.speed;
  const a = limits.acceleration;
  let [px, py, pz] = [0, 0, 0];
  let before = 0;
  for (let i = 1; i < n; i++) {
    const dx = xyz[3 * i] - xyz[3 * i - 3];
    const dy = xyz[3 * i + 1] - xyz[3 * i - 2];
    const dz = xyz[3 * i + 2] - xyz[3 * i - 1];
    const l = Math.sqrt(dx * dx + dy * dy + dz * dz);
    length[i] = l;
    if (l === 0) continue;
    const ux = dx / l;
    const uy = dy / l;
    const uz = dz / l;
    const most = Math.min(s.x / Math.abs(ux), s.y / Math.abs(uy), s.z / Math.abs(uz));
    top[i] = rapid[i] ? most : Math.min(feed[i], most);
    acceleration[i] = PER_MINUTE2 * Math.min(a.x / Math.abs(ux), a.y / Math.abs(uy), a.z / Math.abs(uz));
    if (before > 0) {
      const change = Math.max(Math.abs(ux - px), Math.abs(uy - py), Math.abs(uz - pz));
      const v = Math.min(limits.cornerStep / Math.max(change, 1e-12), top[i], top[before]);
      corner2[before] = v * v;
    }
    [px, py, pz] = [ux, uy, uz];
    before = i;
  }
  // Points between moves of no length take the corner of the last real move; the ends are at rest.
  corner2[before] = 0;
  const waits = new Set(dwells?.points);
  for (const point of waits) corner2[point] = 0;
  const pass2 = new Float64Array(n);
  let last2 = 0;
  for (let i = 1; i < n; i++) {
    if (length[i] > 0) last2 = Math.min(corner2[i], last2 + 2 * acceleration[i] * length[i]);
    pass2[i] = last2;
  }
  let next2 = 0;
  for (let i = n - 1; i >= 1; i--) {
    pass2[i] = Math.min(pass2[i], next2);
    if (length[i] > 0) next2 = pass2[i] + 2 * acceleration[i] * length[i];
  }
  let time = 0;
  let entry2 = 0;
  for (let i = 1; i < n; i++) {
    if (length[i] > 0) {
      time += minutesFor(length[i], entry2, pass2[i], top[i], acceleration[i]);
      entry2 = pass2[i];
    }
    if (waits.has(i)) time += dwells!.seconds / 60;
    at[i] = time;
  }
  return { at, minutes: time };
}

/** Time of one move with the squares of its speeds at both ends, its top speed and its acceleration. */
function minutesFor(length: number, entry2: number, exit2: number, top: number, a: number): number {
  const peak2 = Math.min(top * top, (entry2 + exit2) / 2 + a * length);
  const peak = Math.sqrt(peak2);
  const speeding = (peak2 - entry2) / (2 * a);
  const slowing = (peak2 - exit2) / (2 * a);
  const holding = Math.max(0, length - speeding - slowing);
  return (peak - Math.sqrt(entry2)) / a + (peak - Math.sqrt(exit2)) / a + (peak > 0 ? holding / peak : 0);
}
