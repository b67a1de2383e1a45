import { type Loops } from './clipper.ts';
import { boundsOf, contains, signedArea, type Bounds } from './outline.ts';

/** A connected piece of area: its outer loop (counter-clockwise) first, then its holes (clockwise). */
export interface Region {
  loops: Loops;
  bounds: Bounds;
}

/**
 * Divides the loops of a union into connected regions: every hole goes to the smallest outer loop around it.
 * @param loops as `Clipper.union` returns them.
 */
export function regionsOf(loops: Loops): Region[] {
  const outers = loops
    .filter((loop) => signedArea(loop) > 0)
    .map((loop) => ({ loop, area: signedArea(loop), region: { loops: [loop], bounds: boundsOf([{ points: loop }])! } }))
    .sort((a, b) => a.area - b.area);
  for (const hole of loops) {
    if (signedArea(hole) >= 0) continue;
    const box = boundsOf([{ points: hole }])!;
    const owner = outers.find(({ loop, region: { bounds } }) => within(box, bounds) && mostlyIn(loop, hole));
    owner?.region.loops.push(hole);
  }
  return outers.map(({ region }) => region);
}

/** Holes and outer loops that meet in a point may be off by rounding, mm. */
const ROUNDING = 1e-4;

const within = (inner: Bounds, outer: Bounds): boolean =>
  inner.minX >= outer.minX - ROUNDING &&
  inner.minY >= outer.minY - ROUNDING &&
  inner.maxX <= outer.maxX + ROUNDING &&
  inner.maxY <= outer.maxY + ROUNDING;

/** Whether the middles of most of a hole’s sides lie in a loop: its corners may lie on loops that it touches. */
function mostlyIn(loop: Float64Array, hole: Float64Array): boolean {
  const sides = hole.length / 2;
  let inside = 0;
  for (let i = 0, j = hole.length - 2; i < hole.length; j = i, i += 2)
    if (contains(loop, (hole[i] + hole[j]) / 2, (hole[i + 1] + hole[j + 1]) / 2)) inside++;
  return 2 * inside > sides;
}
