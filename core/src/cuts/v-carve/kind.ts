import { depthForRadius, profileOf, radiusAtDepth } from '../../bits/bit.ts';
import type { Bit } from '../../document/bit.ts';
import type { VCarveCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { clearBitsOf, cleared } from '../clearing.ts';
import { type CutArtwork, type CutPart, cutPart, nothingToCut } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { withOneBit } from '../usual-tries.ts';
import { vCarve } from './v-carve.ts';

const RANK = 1.5;

/** Grooves along the middle of outlines, as deep as a V-bit must go to touch both walls. */
export const vCarveKind: CutKind<VCarveCut> = {
  verb: 'Carve',
  mark: { look: 'filled', word: 'carved' },
  bits: ['v'],
  finest: (a, b) => a.tip - b.tip,
  rank: () => RANK,
  clearBits: (cut) => cut.clearBits,
  fresh: ({ bit, thick, preset, depthPerPass }) => {
    const depthLimit = Math.max(1, Math.min(bit.flute, thick - 2));
    return {
      depthLimit,
      floorStep: 0.5,
      // Several passes only where the bit takes less at once than the limit allows.
      depthPerPass: preset && preset.depthPerPass < depthLimit ? depthPerPass : null,
    };
  },
  // One pass stays one pass.
  fromPreset: (cut, { depthPerPass }) => (cut.depthPerPass === null ? {} : { depthPerPass }),
  tries: withOneBit,
  make: carve,
  details: (cut, length) => `depth limit ${length(cut.depthLimit)}, floor step ${length(cut.floorStep)}`,
  takenAtOnce: (cut, depth) => {
    const whole = depth - cut.startDepth;
    return whole / Math.max(1, Math.ceil(whole / (cut.depthPerPass ?? Infinity) - 1e-9));
  },
};

async function carve(job: Job, cut: VCarveCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): Promise<CutPart[]> {
  const shape = profileOf(bit);
  if (bit.kind !== 'v') throw new CutProblem('A V-carve needs a V-bit; choose one for this cut.');
  const carvables = await artwork.carvables();
  if (carvables.places.length === 0) throw nothingToCut(carvables.open);
  const { lift } = job.stock;
  const clearing = clearBitsOf(job, cut.clearBits, Infinity);
  const { path, ...carving } = vCarve(
    carvables,
    {
      bit: shape,
      depthLimit: cut.depthLimit,
      startDepth: cut.startDepth,
      depthPerPass: cut.depthPerPass ?? undefined,
      floorStep: cut.floorStep,
      clearedBy: clearing.map((b) => b.diameter / 2),
      feed: cut.feed,
      plunge: cut.plunge,
      lift,
      rapid: job.bench.limits.speed.z,
    },
    clipper,
  );
  if (path.feed.length === 0)
    throw new CutProblem('Every chosen outline is narrower than the tip of this bit; choose a bit with a finer tip.');
  const parts = [cutPart(cut, RANK, { path, carving, passes: carving.passes })];
  if (clearing.length === 0) return parts;
  const { area } = artwork.area();
  // The floor is where the V-bit's own reach ends, which may be above the limit.
  const reach = radiusAtDepth(shape, cut.depthLimit - cut.startDepth);
  const floor = clipper.offset(area, -(reach - shape.flat));
  const depth = cut.startDepth + depthForRadius(shape, reach);
  return [
    ...cleared(
      job,
      cut,
      clearing,
      floor,
      { depth, startDepth: cut.startDepth, rank: RANK - 0.5, depthPerPass: cut.depthPerPass ?? Infinity },
      clipper,
    ),
    ...parts,
  ];
}
