import type { Clipper, Loops } from '../geometry/clipper.ts';

/** How far the first ring may stray from the exact offset, mm: under half of what an offset is held to. */
const RING_TOLERANCE = 0.002;

/** How far further rings may stray from the one before, mm: they meet no wall, and this is far under any step. */
const INNER_TOLERANCE = 0.01;

/**
 * Rings into an area from its outline: the first at `inset`, each further one `step` inside the one before, until
 * nothing is left.
 */
export function ringLevels(area: Loops, inset: number, step: number, clipper: Clipper): Loops[] {
  return ringLevelsFrom(clipper.offset(area, -inset), step, clipper);
}

/** As `ringLevels`, from what the area is when shrunk by the inset. */
export function ringLevelsFrom(shrunk: Loops, step: number, clipper: Clipper): Loops[] {
  const levels: Loops[] = [];
  let ring = clipper.simplify(shrunk, RING_TOLERANCE);
  while (ring.length > 0) {
    levels.push(ring);
    if (!Number.isFinite(step)) break;
    ring = clipper.simplify(clipper.offset(ring, -step, INNER_TOLERANCE), INNER_TOLERANCE);
  }
  return levels;
}
