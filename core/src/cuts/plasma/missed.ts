import type { Clipper, Loops } from '../../geometry/clipper.ts';
import { signedArea } from '../../geometry/outline.ts';
import { regionsOf } from '../../geometry/regions.ts';
import { shapeKey, shiftLoops } from '../../geometry/same-shape.ts';

type Side = 'outside' | 'inside' | 'on';

/** Places smaller than this share of a kerf squared are no more than corners that come out round. */
const SHOWS = 0.5;

/** What a kerf leaves otherwise than drawn. */
export interface Missed {
  /** Places that the kerf is too wide for, sharp inner corners among them. */
  narrow: Float64Array[];
  /** Some of what stays is narrower than so many kerfs: strokes and bridges. */
  fine: boolean;
}

/** Stays narrower than so many kerfs, and is burnt at both its edges. */
const FINE = 2;

/**
 * Looks at each piece of an area by itself, equal ones once.
 * @param area what is kept, or cut out where its side is `inside`.
 * @param closes whether the kerf closes something up: between pieces, too, then.
 */
export function missed(area: Loops, side: Side, kerf: number, closes: boolean, clipper: Clipper): Missed {
  const out: Missed = { narrow: [], fine: false };
  if (side === 'on' || kerf === 0) return out;
  const known = new Map<string, Missed>();
  for (const { loops, bounds } of regionsOf(area)) {
    const { minX, minY } = bounds;
    const key = shapeKey(loops, minX, minY);
    let found = known.get(key);
    if (!found) known.set(key, (found = ofPiece(shiftLoops(loops, -minX, -minY), side, kerf, clipper)));
    out.narrow.push(...shiftLoops(found.narrow, minX, minY));
    out.fine ||= found.fine;
  }
  // Only to be shown, where much lies near each other: it need not be so fine.
  if (closes && side === 'outside')
    out.narrow = shows(grown(clipper.simplify(area, kerf / 50), kerf / 2, clipper, kerf / 50), kerf, 1);
  return out;
}

/** Places large enough to show. */
const shows = (loops: Loops, kerf: number, times: number) =>
  loops.filter((loop) => signedArea(loop) > SHOWS * kerf * kerf * times);
const moved = (loops: Loops, by: number, clipper: Clipper, within?: number) =>
  clipper.offset(clipper.offset(loops, by, within), -by, within);
const grown = (loops: Loops, by: number, clipper: Clipper, within?: number) =>
  clipper.difference(moved(loops, by, clipper, within), loops);

function ofPiece(piece: Loops, side: Side, kerf: number, clipper: Clipper): Missed {
  const shrunk = (by: number) => clipper.difference(piece, moved(piece, -by, clipper));
  const [r, f] = [kerf / 2, (FINE * kerf) / 2];
  return side === 'inside'
    ? { narrow: shows(shrunk(r), kerf, 1), fine: shows(grown(piece, f, clipper), kerf, FINE).length > 0 }
    : { narrow: shows(grown(piece, r, clipper), kerf, 1), fine: shows(shrunk(f), kerf, FINE).length > 0 };
}
