import type { Path } from '@kerbe/core/motion/path';

/** The place nearest to a point among the moves that a path makes at its greatest depth; undefined where it has none. */
export function nearestAtDepth({ xyz, rapid }: Path, x: number, y: number): { x: number; y: number } | undefined {
  let lowest = 0;
  for (let i = 2; i < xyz.length; i += 3) lowest = Math.min(lowest, xyz[i]);
  let best: { x: number; y: number } | undefined;
  let least = Infinity;
  for (let i = 1; i < rapid.length; i++) {
    if (rapid[i] || Math.max(xyz[3 * i - 1], xyz[3 * i + 2]) > lowest + 1e-6) continue;
    const [ax, ay] = [xyz[3 * i - 3], xyz[3 * i - 2]];
    const [dx, dy] = [xyz[3 * i] - ax, xyz[3 * i + 1] - ay];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
    const d = Math.hypot(x - ax - t * dx, y - ay - t * dy);
    if (d < least) [best, least] = [{ x: ax + t * dx, y: ay + t * dy }, d];
  }
  return best;
}
