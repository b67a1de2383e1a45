import type { Path } from '../motion/path.ts';
import type { Obstacle } from '../stock/obstacles.ts';
import type { Bounds } from '../geometry/outline.ts';

/** Where a path goes, seen from above; looked up once. */
const boxes = new WeakMap<Path, Bounds>();

function boxOf(path: Path): Bounds {
  const known = boxes.get(path);
  if (known) return known;
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (let i = 0; i < path.xyz.length; i += 3) {
    box.minX = Math.min(box.minX, path.xyz[i]);
    box.maxX = Math.max(box.maxX, path.xyz[i]);
    box.minY = Math.min(box.minY, path.xyz[i + 1]);
    box.maxY = Math.max(box.maxY, path.xyz[i + 1]);
  }
  boxes.set(path, box);
  return box;
}

/**
 * How far a bit’s edge comes inside a keep-out while lower than its top, mm; 0 where it stays clear.
 *
 * @param radius radius of the bit, mm.
 * @example along y = 5 with a 6 mm bit, past a clamp that begins at y = 6: 2
 */
export function intrusion(path: Path, radius: number, keepOut: Obstacle): number {
  const { x, y, length, width, height } = keepOut;
  const { minX, minY, maxX, maxY } = boxOf(path);
  if (maxX + radius < x || minX - radius > x + length || maxY + radius < y || minY - radius > y + width) return 0;
  const { xyz, feed } = path;
  let worst = 0;
  for (let i = 1; i < feed.length; i++) {
    if (Math.min(xyz[3 * i - 1], xyz[3 * i + 2]) > height) continue;
    const [ax, ay] = [xyz[3 * i - 3], xyz[3 * i - 2]];
    const [bx, by] = [xyz[3 * i], xyz[3 * i + 1]];
    if (Math.max(ax, bx) + radius < x || Math.min(ax, bx) - radius > x + length) continue;
    if (Math.max(ay, by) + radius < y || Math.min(ay, by) - radius > y + width) continue;
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay)));
    for (let k = 0; k <= steps; k++) {
      const px = ax + ((bx - ax) * k) / steps;
      const py = ay + ((by - ay) * k) / steps;
      const dx = Math.max(x - px, px - x - length);
      const dy = Math.max(y - py, py - y - width);
      const outside = dx > 0 || dy > 0 ? Math.hypot(Math.max(0, dx), Math.max(0, dy)) : Math.max(dx, dy);
      worst = Math.max(worst, radius - outside);
    }
  }
  return worst;
}
