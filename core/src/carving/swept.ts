import type { Profile } from '../bits/bit.ts';

/**
 * Height of the lowest point that a bit reaches over (px, py) while its tip moves straight from a to b, or Infinity
 * where it does not come within its radius.
 *
 * On a straight move the height of a cone's wall over a fixed point, z(u) + (√(h² + u²) − flat)/slope with u the distance
 * along the move from the nearest place and h the distance across, is convex in u; its minimum lies where
 * dz/du = −u/(slope·√(h² + u²)), that is u = −m·slope·h/√(1 − (m·slope)²) for a climb of m.
 *
 * @example a 60° bit cutting level at z = −5 from x = 0 to 10, seen at (5, 1): −5 + 1/tan 30° = −3.27
 */
export function sweptHeight(
  { flat, slope, radius }: Profile,
  ax: number,
  ay: number,
  az: number,
  bx: number,
  by: number,
  bz: number,
  px: number,
  py: number,
): number {
  const dx = bx - ax;
  const dy = by - ay;
  const length = Math.hypot(dx, dy);
  if (length < 1e-9) return wall(Math.hypot(px - ax, py - ay), Math.min(az, bz));
  const along = ((px - ax) * dx + (py - ay) * dy) / length;
  const h2 = (px - ax) * (px - ax) + (py - ay) * (py - ay) - along * along;
  const h = h2 > 0 ? Math.sqrt(h2) : 0;
  if (h > radius) return Infinity;
  // u runs from −along (at a) to length − along (at b); the bit reaches the point while |u| ≤ chord.
  const chord = Math.sqrt(Math.max(0, radius * radius - h2));
  const from = Math.max(-along, -chord);
  const to = Math.min(length - along, chord);
  if (from > to) return Infinity;
  const m = (bz - az) / length;
  const z = (u: number) => az + m * (u + along);
  const at = (u: number) => wall(Math.sqrt(Math.max(0, h2) + u * u), z(u));
  let lowest = Math.min(at(from), at(to));
  if (slope > 0) {
    const k = m * slope;
    if (Math.abs(k) < 1) {
      const u = (-k * h) / Math.sqrt(1 - k * k);
      lowest = Math.min(lowest, at(Math.min(to, Math.max(from, u))));
    }
  }
  if (flat > h) {
    const reach = Math.sqrt(flat * flat - h * h);
    lowest = Math.min(lowest, at(Math.min(to, Math.max(from, -reach))), at(Math.min(to, Math.max(from, reach))));
  }
  return lowest;

  function wall(distance: number, tip: number): number {
    // A touch of slack: places reached exactly at the flat's rim must not be lost to rounding.
    if (distance <= flat + 1e-9) return tip;
    return distance > radius + 1e-9 || slope <= 0 ? Infinity : tip + (distance - flat) / slope;
  }
}
