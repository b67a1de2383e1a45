import Flatbush from 'flatbush';
import { type Profile, radiusAtDepth } from '../tools/turned.ts';
import type { Loops } from '../geometry/clipper.ts';
import type { Path } from '../motion/path.ts';
import { sweptHeight } from './swept.ts';

/** How a V-carved wall compares with the ideal one, which meets the outline at the top of the stock. */
export interface WallCheck {
  /** Places looked at. */
  places: number;
  /** Furthest that anything outside the outline is cut, mm across. */
  gouge: number;
  /** Depth by which a wall is short of the ideal, mm: the worst, and what all but one in a thousand stay within. */
  standing: number;
  standing999: number;
}

/**
 * Looks along an outline at the surface that a path leaves: over the outline it should just come to the top of the
 * stock. A cone's wall is followed above the stock too, so that the missing depth is measured there.
 *
 * @param every distance between the places looked at, mm.
 */
export function checkWalls(path: Path, bit: Profile, outline: Loops, every: number): WallCheck {
  const { xyz, feed } = path;
  const ends: number[] = [];
  for (let i = 1; i < feed.length; i++) if (xyz[3 * i + 2] < 0 || xyz[3 * i - 1] < 0) ends.push(i);
  const bush = new Flatbush(Math.max(1, ends.length));
  // Followed a little past where it leaves the stock, so that short walls are still met.
  const past = 0.2;
  for (const i of ends) {
    const [ax, ay, az, bx, by, bz] = xyz.subarray(3 * i - 3, 3 * i + 3);
    const r = radiusAtDepth({ ...bit, radius: Infinity }, -Math.min(az, bz)) + past;
    bush.add(Math.min(ax, bx) - r, Math.min(ay, by) - r, Math.max(ax, bx) + r, Math.max(ay, by) + r);
  }
  if (ends.length === 0) bush.add(Infinity, Infinity, Infinity, Infinity);
  bush.finish();
  const longer = { ...bit, radius: bit.radius + past };
  const short: number[] = [];
  let gouge = 0;
  for (const loop of outline)
    for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
      const length = Math.hypot(loop[i] - loop[j], loop[i + 1] - loop[j + 1]);
      const n = Math.max(1, Math.ceil(length / every));
      for (let k = 0; k < n; k++) {
        const x = loop[j] + ((loop[i] - loop[j]) * k) / n;
        const y = loop[j + 1] + ((loop[i + 1] - loop[j + 1]) * k) / n;
        let height = Infinity;
        for (const found of bush.search(x, y, x, y)) {
          const e = 3 * ends[found];
          height = Math.min(
            height,
            sweptHeight(longer, xyz[e - 3], xyz[e - 2], xyz[e - 1], xyz[e], xyz[e + 1], xyz[e + 2], x, y),
          );
        }
        gouge = Math.max(gouge, -height * bit.slope);
        short.push(Math.max(0, height));
      }
    }
  short.sort((a, b) => a - b);
  return {
    places: short.length,
    gouge,
    standing: short.at(-1) ?? 0,
    standing999: short[Math.floor(short.length * 0.999)] ?? 0,
  };
}
