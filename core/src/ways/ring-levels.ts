import type { Clipper, Loops } from '../geometry/clipper.ts';
import { boundsOf } from '../geometry/outline.ts';
import { checkMoves, TooManyMoves } from '../motion/too-many-moves.ts';

/** How far the first ring may stray from the exact offset, mm: under half of what an offset is held to. */
const RING_TOLERANCE = 0.0015;

/** How far further rings may stray from the one before, mm: they meet no wall, and this is far under any step. */
const INNER_TOLERANCE = 0.01;

/** More rings than this, one inside the other, are a floor a metre wide in steps of a fifth of a millimetre. */
const MOST_RINGS = 2500;

const tooManyRings = () =>
  new TooManyMoves(
    `With this step the floor would have more than ${MOST_RINGS.toLocaleString('en')} rings; make the step larger.`,
  );

/**
 * Rings into an area from its outline: the first at `inset`, each further one `step` inside the one before, until
 * nothing is left.
 * @throws {TooManyMoves} where the step makes more of them than any program should have.
 */
export function ringLevels(area: Loops, inset: number, step: number, clipper: Clipper): Loops[] {
  return ringLevelsFrom(clipper.offset(area, -inset), step, clipper);
}

/** As `ringLevels`, from what the area is when shrunk by the inset. */
export function ringLevelsFrom(shrunk: Loops, step: number, clipper: Clipper): Loops[] {
  const levels: Loops[] = [];
  let ring = thinned(shrunk, clipper);
  if (Number.isFinite(step)) checkMoves(ringMoves(ring, step), 'step');
  let made = 0;
  while (ring.length > 0) {
    levels.push(ring);
    if (levels.length > MOST_RINGS) throw tooManyRings();
    if (!Number.isFinite(step)) break;
    for (const loop of ring) made += loop.length / 2;
    checkMoves(made, 'step');
    ring = clipper.simplify(clipper.offset(ring, -step, INNER_TOLERANCE), INNER_TOLERANCE);
  }
  return levels;
}

/** With fewer points, and none lost: a place that is wider than the bit by a hair has a ring no larger than that. */
function thinned(loops: Loops, clipper: Clipper): Loops {
  const thin = clipper.simplify(loops, RING_TOLERANCE);
  if (thin.length === loops.length) return thin;
  return loops.flatMap((loop) => {
    const [own = loop] = clipper.simplify([loop], RING_TOLERANCE);
    return [own];
  });
}

/** About how many moves rings inside some loops come to: no more rings than half the narrower side holds. */
export function ringMoves(loops: Loops, step: number): number {
  let moves = 0;
  for (const loop of loops) {
    const { minX, minY, maxX, maxY } = boundsOf([{ points: loop }])!;
    if (Math.min(maxX - minX, maxY - minY) / 2 / step > 2 * MOST_RINGS) throw tooManyRings();
    // A ring of a round shape has fewer points the smaller it is.
    moves += (Math.min(maxX - minX, maxY - minY) / 2 / step) * Math.max(4, loop.length / 8);
  }
  return moves;
}
