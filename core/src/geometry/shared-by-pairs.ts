import Flatbush from 'flatbush';
import type { Clipper } from './clipper.ts';
import { type Bounds, boundsOf, coveredBy, type Loops } from './outline.ts';
import { sharedLines } from './shared-lines.ts';

/** Shapes that share less than this do not overlap, mm²: rounding. */
export const OVERLAP = 1e-3;

/** Points of pairs that are looked at in all; a drawing of more has better things to be told. */
const MOST_POINTS = 200_000;

/**
 * How much of their lines shapes share, mm, where some of them overlap: what those share that do not, two by two, until very
 * many have been looked at.
 * @example two squares of 10 mm side by side, and a third over a corner of one: 10
 */
export function sharedByPairs(parts: readonly Loops[], clipper: Clipper): number {
  const drawn = parts.filter((loops) => loops.length > 0);
  if (drawn.length < 2) return 0;
  const boxes = drawn.map((loops): Bounds => boundsOf(loops.map((points) => ({ points })))!);
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  let shared = 0;
  let points = 0;
  boxes.forEach(({ minX, minY, maxX, maxY }, k) => {
    for (const other of index.search(minX, minY, maxX, maxY)) {
      if (other <= k) continue;
      const pair = [drawn[k], drawn[other]];
      points += pair.flat().reduce((sum, loop) => sum + loop.length / 2, 0);
      if (points > MOST_POINTS) return;
      const together = clipper.union(pair.flat(), 'nonzero');
      if (coveredBy(pair.flat()) - coveredBy(together) <= OVERLAP) shared += sharedLines(pair, together);
    }
  });
  return shared;
}
