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
    const owner = outers.find(
      ({ loop, region: { bounds: b } }) =>
        hole[0] >= b.minX &&
        hole[0] <= b.maxX &&
        hole[1] >= b.minY &&
        hole[1] <= b.maxY &&
        contains(loop, hole[0], hole[1]),
    );
    owner?.region.loops.push(hole);
  }
  return outers.map(({ region }) => region);
}
