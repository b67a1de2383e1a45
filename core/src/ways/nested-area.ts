import type { Clipper } from '../geometry/clipper.ts';
import { boundsOf, coveredBy, type Loops } from '../geometry/outline.ts';
import { sharedByPairs } from '../geometry/shared-by-pairs.ts';
import { sharedLines } from '../geometry/shared-lines.ts';
import { insideArea } from '../geometry/stretches.ts';

/** Shapes that cross each other by less than this do not, mm²: rounding. */
const CROSSES = 0.05;

/**
 * What shapes keep where each lies in another or beside it: what lies in one is its hole, and in that a part again.
 *
 * @param covers what each shape covers by itself.
 * @returns that area, whether some of them cross, and how much of their lines they share, mm; where some cross, those that do not.
 */
export function nestedArea(
  covers: readonly Loops[],
  clipper: Clipper,
): { area: Loops; crossing: boolean; touching: number } {
  const pieces = onceEach(covers);
  const area = clipper.union(pieces.flat(), 'evenodd');
  const crossing = Math.abs(keptOf(pieces) - coveredBy(area)) > CROSSES;
  return { area, crossing, touching: crossing ? sharedByPairs(pieces, clipper) : sharedLines(pieces, area) };
}

/** What shapes enclose where each lies in another or beside it, mm²: where some cross, it is not that. */
function keptOf(pieces: readonly Loops[]): number {
  const all = pieces.map((loops) => ({
    loops,
    area: coveredBy(loops),
    box: boundsOf(loops.map((points) => ({ points })))!,
  }));
  return all.reduce((sum, { loops, area }) => {
    const [x, y] = loops[0];
    const depth = all.filter(
      (other) =>
        other.area > area &&
        x >= other.box.minX &&
        x <= other.box.maxX &&
        y >= other.box.minY &&
        y <= other.box.maxY &&
        insideArea(other.loops, x, y),
    ).length;
    return sum + (depth % 2 === 0 ? area : -area);
  }, 0);
}

/** Shapes that cover something, each once: one drawn twice would be none at all. */
function onceEach(pieces: readonly Loops[]): Loops[] {
  const known = new Set<string>();
  return pieces.filter((loops) => {
    if (loops.length === 0) return false;
    const { minX, minY, maxX, maxY } = boundsOf(loops.map((points) => ({ points })))!;
    const key = [minX, minY, maxX, maxY, coveredBy(loops)].map((v) => Math.round(v * 100)).join(' ');
    return !known.has(key) && known.add(key);
  });
}
