import { type Bounds, boundsOf, contains, type Loops, signedArea } from '../geometry/outline.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { flatTrack } from '../motion/track.ts';
import { checkClear } from './checked.ts';

/** A closed line along whose middle a kerf is cut. */
export interface KerfLoop {
  /** In the direction in which it is gone along. */
  points: Float64Array;
  /** What is thrown away lies inside it: a hole, and what drops out of it. */
  scrapInside: boolean;
  /** It goes round what the area leaves out. */
  hole: boolean;
  bounds: Bounds;
  /** What it encloses, mm². */
  area: number;
  /** The smallest other loop that goes round it; -1 where none does. */
  within: number;
}

export interface KerfSettings {
  /** `outside` keeps what the lines enclose, `inside` cuts it out, `on` follows the lines. */
  side: 'outside' | 'inside' | 'on';
  /** How far the kerf's middle stays from the lines, mm. */
  offset: number;
  /** The square edge is on the right of the way the torch goes, as with the usual swirl; what is kept lies there. */
  keptOnRight: boolean;
}

/**
 * The lines along which kerfs are cut so that what is kept has the size of an area: outsides clockwise and insides
 * counter-clockwise where the square edge is on the right (common practice), and the other way round where it is not.
 *
 * @param area as `Clipper.union` returns it.
 * @throws {OwnFault} where a kerf would reach into what is kept.
 * @example a square of 10 mm kept, kerf 2 mm: one clockwise loop 1 mm outside it, scrap outside
 */
export function kerfLoops(area: Loops, { side, offset, keptOnRight }: KerfSettings, clipper: Clipper): KerfLoop[] {
  const moved = side === 'on' || offset === 0 ? area : clipper.offset(area, side === 'outside' ? offset : -offset);
  const loops = moved.map((loop): KerfLoop => {
    const outer = signedArea(loop) > 0;
    const scrapInside = side === 'inside' ? outer : !outer;
    // Kept inside and on the right: clockwise.
    const clockwise = scrapInside !== keptOnRight;
    const points = signedArea(loop) > 0 === clockwise ? turned(loop) : loop;
    return {
      points,
      scrapInside,
      hole: !outer,
      bounds: boundsOf([{ points }])!,
      area: Math.abs(signedArea(loop)),
      within: -1,
    };
  });
  if (moved !== area) checkClear(loops.map(({ points }) => flatTrack(points, 0, true)), area, side === 'inside', offset); // prettier-ignore
  const bySize = loops.map((_, k) => k).sort((a, b) => loops[a].area - loops[b].area);
  bySize.forEach((k, i) => {
    const { bounds, points } = loops[k];
    for (const other of bySize.slice(i + 1)) {
      const { bounds: b, points: around } = loops[other];
      if (bounds.minX < b.minX || bounds.maxX > b.maxX || bounds.minY < b.minY || bounds.maxY > b.maxY) continue;
      if (!contains(around, points[0], points[1])) continue;
      loops[k].within = other;
      break;
    }
  });
  return loops;
}

/** A loop gone along the other way, from the same first point. */
function turned(loop: Float64Array): Float64Array {
  const n = loop.length / 2;
  const out = new Float64Array(loop.length);
  for (let i = 0; i < n; i++) {
    const k = (n - i) % n;
    out[2 * i] = loop[2 * k];
    out[2 * i + 1] = loop[2 * k + 1];
  }
  return out;
}
