import type { Clipper } from '../geometry/clipper.ts';
import { coveredBy, lengthOf, type Outline } from '../geometry/outline.ts';

/** Areas may be off by so much for each mm of outline, mm²: the geometry library keeps lengths to a millionth of one. */
const ROUNDING = 2e-6;

/**
 * A letter whose strokes overlap, as many faces draw them, as the outlines of what they cover together (fill rule
 * nonzero); undefined where none overlap.
 *
 * @param outlines closed, mm.
 * @example a T of two bars, 12 × 2 and 2 × 10, the second reaching into the first: one outline of 8 corners
 */
export function unitedLetter(outlines: readonly Outline[], clipper: Clipper): Outline[] | undefined {
  const loops = outlines.map(({ points }) => points);
  const united = clipper.union(loops, 'nonzero');
  const rounding = ROUNDING * outlines.reduce((sum, outline) => sum + lengthOf(outline), 0);
  if (Math.abs(Math.abs(coveredBy(loops)) - coveredBy(united)) <= rounding) return undefined;
  // What they were drawn with belongs to the letter, and to none of the new outlines more than to another.
  const nodes = outlines.reduce((sum, outline) => sum + (outline.nodes ?? outline.points.length / 2), 0);
  return united.map((points, k) => ({ points, closed: true, nodes: k === 0 ? nodes : 0 }));
}
