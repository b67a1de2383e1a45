import type { Clipper } from '../../geometry/clipper.ts';
import { type Loops, signedArea } from '../../geometry/outline.ts';
import { bridged } from '../../ways/bridges.ts';
import { nestedArea } from '../../ways/nested-area.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import type { PlasmaCut } from './fields.ts';

/** What is cut along, with the bars that tie its islands, and the islands that nothing ties. */
export function areaKept(
  cut: PlasmaCut,
  artwork: CutArtwork,
  clipper: Clipper,
): { area: Loops; islands: Loops; crossing: boolean; touching: number } {
  const tied = (area: Loops) => (cut.bridge > 0 ? bridged(area, cut.bridge, clipper) : area);
  const loose = (cutOut: Loops) => cutOut.filter((loop) => signedArea(loop) < 0);
  if (cut.side !== 'nested') {
    const { area, touching } = artwork.area();
    if (cut.side !== 'inside') return { area, islands: [], crossing: false, touching };
    const cutOut = tied(area);
    return { area: cutOut, islands: loose(cutOut), crossing: false, touching };
  }
  const { area: kept, crossing, touching } = nestedArea(artwork.covers(), clipper);
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
    crossing,
    touching,
  };
}
