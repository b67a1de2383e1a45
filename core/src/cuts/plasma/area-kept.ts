import type { Clipper } from '../../geometry/clipper.ts';
import { boundsOf, type Loops, signedArea } from '../../geometry/outline.ts';
import { insideArea } from '../../geometry/stretches.ts';
import { bridged } from '../../ways/bridges.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import type { PlasmaCut } from './fields.ts';

/** What is cut along, with the bars that tie its islands, and the islands that nothing ties. */
export function areaKept(
  cut: PlasmaCut,
  artwork: CutArtwork,
  clipper: Clipper,
): { area: Loops; islands: Loops; crossing: boolean } {
  const tied = (area: Loops) => (cut.bridge > 0 ? bridged(area, cut.bridge, clipper) : area);
  const loose = (cutOut: Loops) => cutOut.filter((loop) => signedArea(loop) < 0);
  if (cut.side !== 'nested') {
    const { area } = artwork.area();
    if (cut.side !== 'inside') return { area, islands: [], crossing: false };
    const cutOut = tied(area);
    return { area: cutOut, islands: loose(cutOut), crossing: false };
  }
  const pieces = onceEach(artwork.covers());
  const kept = clipper.union(pieces.flat(), 'evenodd');
  // The outermost lines, filled: what is cut out of them hangs on islands, where it has some.
  const filled = clipper.union(
    kept.filter((loop) => signedArea(loop) > 0),
    'nonzero',
  );
  const holes = clipper.difference(filled, kept);
  const cutOut = tied(holes);
  return {
    area: cutOut === holes ? kept : clipper.difference(filled, cutOut),
    islands: loose(cutOut),
    crossing: Math.abs(nestedArea(pieces) - covered(kept)) > CROSSES,
  };
}

/** Shapes that cross each other by less than this do not, mm²: rounding. */
const CROSSES = 0.05;

/** What shapes enclose where each lies in another or beside it, mm²: where some cross, it is not that. */
function nestedArea(pieces: readonly Loops[]): number {
  const all = pieces.map((loops) => ({
    loops,
    area: covered(loops),
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

const covered = (loops: Loops) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);

/** Shapes that cover something, each once: one drawn twice would be none at all. */
function onceEach(pieces: readonly Loops[]): Loops[] {
  const known = new Set<string>();
  return pieces.filter((loops) => {
    if (loops.length === 0) return false;
    const { minX, minY, maxX, maxY } = boundsOf(loops.map((points) => ({ points })))!;
    const key = [minX, minY, maxX, maxY, covered(loops)].map((v) => Math.round(v * 100)).join(' ');
    return !known.has(key) && known.add(key);
  });
}
