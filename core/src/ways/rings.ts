import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { boundsOf } from '../geometry/outline.ts';
import { insideArea } from '../geometry/stretches.ts';
import type { Track } from '../motion/track.ts';

interface Ring {
  loop: Float64Array;
  inner: Ring[];
}

export interface NestSettings {
  /** Rings run with the wood on the right of the bit, as offsets do; without it they are turned. */
  climb?: boolean;
  /** Ways to open the innermost rings' regions, by the outer loop of each; cut before that ring. */
  openings?: ReadonlyMap<Float64Array, Track>;
}

/**
 * Joins rings that lie one inside the other into tracks, innermost first, each ring left for the next outer one by the
 * shortest way over what is cleared already. Where a ring has several inside it, all but one get tracks of their own.
 * Tracks come in an order that cuts inner rings before the outer ones around them.
 *
 * @param levels loops by level, the outermost first; each level lies inside the one before.
 * @param z height at which all are cut, mm.
 */
export function nestRings(levels: readonly Loops[], z: number, { climb = true, openings }: NestSettings = {}): Track[] {
  if (levels.length === 0 || levels[0].length === 0) return [];
  const rings: Ring[][] = levels.map((loops) => loops.map((loop) => ({ loop, inner: [] })));
  for (let k = 1; k < rings.length; k++) {
    const outer = rings[k - 1];
    const to = outer.length > 1 ? outer.map(({ loop }) => Clearance.ofLoops([loop])) : [];
    for (const ring of rings[k]) {
      let best = 0;
      let nearest = Infinity;
      if (outer.length > 1)
        for (let i = 0; i < outer.length; i++) {
          const d = gap(ring.loop, to[i], nearest);
          if (d < nearest) [best, nearest] = [i, d];
        }
      outer[best].inner.push(ring);
    }
  }
  const legal = Clearance.ofLoops(levels[0]);
  const straightAcross = (px: number, py: number, qx: number, qy: number) => {
    const length = Math.hypot(qx - px, qy - py);
    // A step as long as the edge is away cannot cross it; near the edge itself steps are small.
    for (let s = 0; s < length;) {
      const x = px + ((qx - px) * s) / length;
      const y = py + ((qy - py) * s) / length;
      const away = legal.at(x, y);
      if (away > 0.003 && !insideArea(levels[0], x, y)) return false;
      s += Math.max(away, 0.05);
    }
    return true;
  };
  const tracks: Track[] = [];
  const finish = (points: number[], ring: number) =>
    tracks.push({ xyz: Float64Array.from(points), closed: ring * 3 === points.length, ring, oneWay: true });
  /** Cuts what lies inside a ring first; returns the points so far with the ring itself last. */
  const walk = (ring: Ring): { points: number[]; first: number } => {
    const parts = ring.inner.map(walk).sort((a, b) => b.points.length - a.points.length);
    for (const part of parts.slice(1)) finish(part.points, part.first);
    const { loop } = ring;
    const n = loop.length / 2;
    let { points, first } = parts[0] ?? openedWith(openings?.get(loop), z);
    let from = 0;
    if (points.length) {
      const px = points[points.length - 3];
      const py = points[points.length - 2];
      let nearest = Infinity;
      for (let i = 0; i < n; i++) {
        const d = Math.hypot(loop[2 * i] - px, loop[2 * i + 1] - py);
        if (d < nearest) [from, nearest] = [i, d];
      }
      if (!straightAcross(px, py, loop[2 * from], loop[2 * from + 1])) {
        finish(points, first);
        points = [];
        first = 0;
      }
    }
    if (points.length === 0) first = n + 1;
    for (let i = 0; i <= n; i++) {
      const k = 2 * ((from + (climb ? i : n - i)) % n);
      points.push(loop[k], loop[k + 1], z);
    }
    return { points, first };
  };
  for (const ring of rings[0]) {
    const { points, first } = walk(ring);
    finish(points, first);
  }
  return tracks;
}

function openedWith(opening: Track | undefined, z: number): { points: number[]; first: number } {
  if (!opening) return { points: [], first: 0 };
  const points = [...opening.xyz];
  for (let i = 2; i < points.length; i += 3) points[i] = z;
  return { points, first: opening.ring };
}

/** Distance between a loop's vertices and another loop, searched no further than `most`. */
function gap(loop: Float64Array, to: Clearance, most: number): number {
  const { minX, minY, maxX, maxY } = boundsOf([{ points: loop }])!;
  if (to.at((minX + maxX) / 2, (minY + maxY) / 2) - Math.hypot(maxX - minX, maxY - minY) / 2 > most) return Infinity;
  let best = Infinity;
  for (let i = 0; i < loop.length; i += 2) best = Math.min(best, to.at(loop[i], loop[i + 1]));
  return best;
}
