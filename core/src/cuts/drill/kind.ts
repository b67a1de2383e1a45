import { roundPlaces } from '../../artwork/round-places.ts';
import type { Bit } from '../../document/bit.ts';
import type { DrillCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { drill } from '../../ways/drill.ts';
import { type CutArtwork, type CutPart, cutPart } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';

const RANK = 0;

/** Holes at the middles of circles. */
export const drillKind: CutKind<DrillCut> = {
  verb: 'Drill',
  mark: { look: 'holes', word: 'hole' },
  bits: ['drill', 'end'],
  rank: () => RANK,
  fresh: ({ bit, through }) => ({ depth: Math.min(through, bit.flute), peck: 3.175, retract: 'full', dwell: 0 }),
  make: drilled,
  details: (cut, length) => (cut.peck > 0 ? `pecks of ${length(cut.peck)}, ${cut.retract} retract` : 'in one go'),
  cycle: (cut) => cut,
  // Drilling goes by pecks, and takes none of a pass.
  takenAtOnce: () => 0,
};

function drilled(job: Job, cut: DrillCut, bit: Bit, { shapes }: CutArtwork): CutPart[] {
  if (bit.kind === 'v') throw new CutProblem('Drilling needs a drill or an end mill; choose one for this cut.');
  const { places, others } = roundPlaces(shapes);
  if (places.length === 0)
    throw new CutProblem(
      shapes.length === 0
        ? 'No circles are chosen for this cut; choose some on the sheet.'
        : 'None of the chosen outlines is a circle or a point; holes are drilled at the centres of circles.',
    );
  const { path, holes, dwells } = drill(places, { ...cut, lift: job.stock.lift });
  return [
    cutPart(cut, RANK, {
      path,
      holes,
      dwells: dwells.length > 0 ? { points: dwells, seconds: cut.dwell } : undefined,
      lost: others,
    }),
  ];
}
