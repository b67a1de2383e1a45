import type { Clipper, Loops } from '../../geometry/clipper.ts';
import { signedArea } from '../../geometry/outline.ts';

type Side = 'outside' | 'inside' | 'on';

/** Places smaller than this share of a kerf squared are no more than corners that come out round. */
const SHOWS = 0.5;

/**
 * Places that the kerf is too wide for, sharp inner corners among them, and whether any closes altogether: a slot, a hole,
 * what lies between parts.
 */
export function missed(
  area: Loops,
  side: Side,
  kerf: number,
  clipper: Clipper,
): { narrow: Float64Array[]; closes: boolean } {
  if (side === 'on' || kerf === 0 || area.length === 0) return { narrow: [], closes: false };
  const r = kerf / 2;
  const kept = clipper.offset(clipper.offset(area, side === 'inside' ? -r : r), side === 'inside' ? r : -r);
  const lost = side === 'inside' ? clipper.difference(area, kept) : clipper.difference(kept, area);
  return {
    narrow: lost.filter((loop) => signedArea(loop) > SHOWS * kerf * kerf),
    closes: kept.length !== area.length,
  };
}

/** Sizes of details that are looked for, as multiples of the kerf, the finest first. */
const DETAILS = [1.5, 2, 3, 4];

/**
 * How fine the finest detail is that stays of what is cut, mm: strokes and bridges narrower than it are there, and none
 * narrower than the one before. Nothing where even four kerfs find none.
 */
export function smallestDetail(area: Loops, side: Side, kerf: number, clipper: Clipper): number | null {
  if (area.length === 0 || kerf === 0) return null;
  for (const times of DETAILS) {
    const r = (times * kerf) / 2;
    const kept =
      side === 'inside'
        ? clipper.difference(clipper.offset(clipper.offset(area, r), -r), area)
        : clipper.difference(area, clipper.offset(clipper.offset(area, -r), r));
    if (kept.some((loop) => signedArea(loop) > SHOWS * kerf * kerf * times)) return times * kerf;
  }
  return null;
}
