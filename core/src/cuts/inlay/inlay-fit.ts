import { Clearance } from '../../geometry/clearance.ts';
import type { Clipper, Loops } from '../../geometry/clipper.ts';
import { signedArea } from '../../geometry/outline.ts';
import { CutProblem } from '../../ways/cut-problem.ts';

/** The two outlines of a straight inlay. */
export interface InlayFit {
  /** What is cut away to take the part in. */
  recess: Loops;
  /** The outline of the part itself. */
  part: Loops;
  /** Smallest and largest gap between the two, mm a side, found by going along both. */
  gap: { least: number; most: number };
  /**
   * Places where rounding one kind of corner made one of the other kind: between two edges that lie nearer than the bit is
   * wide the halves do not fit.
   */
  pinched: number;
}

/** What the bit leaves of a neck is none where it is thinner than this, mm, or smaller, mm²: a fit has it twice. */
const THINNEST_PINCH = 0.005;
const SMALLEST_PINCH = 2e-4;
/** Chords of the rounds by which that is found, mm. */
const PINCH_TOLERANCE = 0.0004;

/** Strokes that are kept are wider than the bit by this on each side, mm: a hair less, and rounding would stop it there. */
const PASSED_BY = 0.002;

/** How far apart gaps are measured along the outlines, mm. */
const MEASURED_EVERY = 0.1;

/**
 * Part and recess of a straight inlay from one outline. Corners that a round bit cannot make are rounded in the shape
 * itself, convex and concave alike, to the bit’s radius, so that both fit. The allowance is the pair's: each half has half
 * of it, and the outline lies in the middle of the gap, or of the overlap.
 *
 * @param area loops as `Clipper.union` returns them.
 * @param radius radius of the larger of the two bits, mm.
 * @param allowance of the pair, mm a side: a gap, or below 0 a press.
 * @throws {CutProblem} where nothing of the shape is wide enough.
 * @example a 20 mm square with a 3 mm bit: both have corners of 1.5 mm radius or a little more
 */
export function inlayFit(area: Loops, radius: number, allowance: number, clipper: Clipper): InlayFit {
  if (!(radius > 0)) throw new CutProblem('The bit has no diameter; give it one at Bits.');
  if (Math.abs(allowance) > radius)
    throw new CutProblem('The allowance is larger than the bit’s radius; a few hundredths of a millimetre are usual.');
  // Rounder than the bit by what moving each half takes away from a corner again.
  const rounder = radius + Math.abs(allowance) / 2;
  // Opened, then closed: what the two do one after the other outwards is done at once.
  const grown = clipper.offset(clipper.offset(area, -rounder - PASSED_BY), 2 * rounder + PASSED_BY);
  const recess = clipper.offset(grown, allowance / 2 - rounder);
  if (recess.length === 0)
    throw new CutProblem('The bit is wider than every place of this inlay; choose a smaller bit or a larger shape.');
  const part = allowance === 0 ? recess : clipper.offset(grown, -allowance / 2 - rounder);
  if (part.length === 0) throw new CutProblem('The allowance leaves nothing of the part; make it smaller.');
  return { recess, part, gap: gapBetween(part, recess, allowance), pinched: pinchedIn(grown, rounder, clipper) };
}

/** Closing can bring edges so near to each other that the bit does not go between them: what it would leave, counted. */
function pinchedIn(grown: Loops, rounder: number, clipper: Clipper): number {
  const moved = (loops: Loops, by: number) => clipper.offset(loops, by, PINCH_TOLERANCE);
  const middle = moved(grown, -rounder);
  const reached = moved(moved(grown, -2 * rounder), rounder + THINNEST_PINCH);
  return clipper.difference(middle, reached).filter((loop) => Math.abs(signedArea(loop)) > SMALLEST_PINCH).length;
}

function gapBetween(part: Loops, recess: Loops, allowance: number): { least: number; most: number } {
  if (allowance === 0) return { least: 0, most: 0 };
  const edge = Clearance.ofLoops(recess);
  const sign = Math.sign(allowance);
  let least = Infinity;
  let most = -Infinity;
  for (const loop of part)
    for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
      const length = Math.hypot(loop[i] - loop[j], loop[i + 1] - loop[j + 1]);
      const n = Math.max(1, Math.ceil(length / MEASURED_EVERY));
      for (let k = 0; k < n; k++) {
        const t = k / n;
        const gap = sign * edge.at(loop[j] + t * (loop[i] - loop[j]), loop[j + 1] + t * (loop[i + 1] - loop[j + 1]));
        least = Math.min(least, gap);
        most = Math.max(most, gap);
      }
    }
  return { least, most };
}
