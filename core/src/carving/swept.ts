import type { Profile } from '../tools/turned.ts';

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
  bit: Profile,
  ax: number,
  ay: number,
  az: number,
  bx: number,
  by: number,
  bz: number,
  px: number,
  py: number,
): number {
  const { flat, slope, radius } = bit;
  const dx = bx - ax;
  const dy = by - ay;
  const qx = px - ax;
  const qy = py - ay;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length < 1e-9) return wall(bit, Math.sqrt(qx * qx + qy * qy), Math.min(az, bz));
  const along = (qx * dx + qy * dy) / length;
  const h2 = Math.max(0, qx * qx + qy * qy - along * along);
  if (h2 > radius * radius) return Infinity;
  // u runs from −along (at a) to length − along (at b); the bit reaches the point while |u| ≤ chord.
  const chord = Math.sqrt(radius * radius - h2);
  const from = Math.max(-along, -chord);
  const to = Math.min(length - along, chord);
  if (from > to) return Infinity;
  const m = (bz - az) / length;
  const base = az + m * along;
  let lowest = Math.min(
    wall(bit, Math.sqrt(h2 + from * from), base + m * from),
    wall(bit, Math.sqrt(h2 + to * to), base + m * to),
  );
  if (slope > 0) {
    const k = m * slope;
    if (k > -1 && k < 1) {
      const u = Math.min(to, Math.max(from, (-k * Math.sqrt(h2)) / Math.sqrt(1 - k * k)));
      lowest = Math.min(lowest, wall(bit, Math.sqrt(h2 + u * u), base + m * u));
    }
  }
  if (flat * flat > h2) {
    const reach = Math.sqrt(flat * flat - h2);
    const near = Math.min(to, Math.max(from, -reach));
    const far = Math.min(to, Math.max(from, reach));
    lowest = Math.min(
      lowest,
      wall(bit, Math.sqrt(h2 + near * near), base + m * near),
      wall(bit, Math.sqrt(h2 + far * far), base + m * far),
    );
  }
  return lowest;
}

/** Height of a bit's lower side at a distance from its axis, with its tip at a height. */
function wall({ flat, slope, radius }: Profile, distance: number, tip: number): number {
  // A touch of slack: places reached exactly at the flat's rim must not be lost to rounding.
  if (distance <= flat + 1e-9) return tip;
  return distance > radius + 1e-9 || slope <= 0 ? Infinity : tip + (distance - flat) / slope;
}
