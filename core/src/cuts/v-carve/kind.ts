import { depthForRadius, radiusAtDepth } from '../../tools/turned.ts';
import { profileOf } from '../../tools/profile-of.ts';
import { widthLeft } from '../../tools/leaves.ts';
import type { VBit } from '../../tools/v/fields.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { formatArea, formatLength } from '../../quantity/format.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { clearBitsOf, cleared } from '../clearing.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { freeInsides } from '../propose.ts';
import { type CutPart, cutPart, type SeenPart, nothingToCut } from '../cut-part.ts';
import type { CutKind, SheetMark } from '../kind.ts';
import { withOneBit } from '../usual-tries.ts';
import { FLOOR_WORTH_SAYING, NARROW_WORTH_SAYING, type VCarveFacts } from './facts.ts';
import { FIELDS, heading, more, sentence, type VCarveCut } from './fields.ts';
import { figure } from './figure.ts';
import { judgeCarving } from './judge.ts';
import { quicker } from './quicker.ts';
import { vCarve } from './v-carve.ts';

const RANK = 1.5;

/** Strokes that come out narrower by more than this, mm, or by more than this share, look uneven. */
const NARROWER = 0.2;
const NARROWER_SHARE = 0.1;

/** Grooves along the middle of outlines, as deep as a V-bit must go to touch both walls. */
export const vCarveKind: CutKind<VCarveCut, VCarveFacts, VBit> = {
  fields: FIELDS,
  verb: 'Carve',
  one: 'a V-carve',
  sentence,
  more,
  heading,
  figure,
  mark: { look: { tone: 'carved', fill: 'solid', line: 1.2 }, word: 'carved' },
  marks: blank,
  facts: ({ facts }, length, unit) =>
    facts
      ? [
          ...(facts.tooNarrow > NARROW_WORTH_SAYING
            ? [[length(facts.tooNarrow, 0), 'of thin line stays blank'] as [string, string]]
            : []),
          ...(facts.floorArea > FLOOR_WORTH_SAYING
            ? [['', `${formatArea(facts.floorArea, unit, 0)} flat`] as [string, string]]
            : []),
        ]
      : [],
  notes,
  bits: ['v'],
  finest: (a, b) => a.tip - b.tip,
  rank: () => RANK,
  clearBits: (cut) => cut.clearBits,
  closedOnly: true,
  carves: true,
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
  proposes: () => [freeInsides],
  goDeep: (depth) => ({ depthLimit: depth }),
  deeper: ({ startDepth, depthLimit }, by) => ({ startDepth: startDepth + by, depthLimit: depthLimit + by }),
  tries: withOneBit,
  quicker,
  make: carve,
  judge: judgeCarving,
  takenAtOnce: (cut, depth) => {
    const whole = depth - cut.startDepth;
    return whole / Math.max(1, Math.ceil(whole / (cut.depthPerPass ?? Infinity) - 1e-9));
  },
  onUneven({ startDepth }, { leaves, depth }, drop) {
    // A groove's half width is its depth times the slope of the bit, and as much is lost of it as of the depth.
    const widest = widthLeft(leaves, depth - startDepth);
    const narrower = widest - widthLeft(leaves, Math.max(0, depth - drop));
    return narrower > NARROWER || narrower > NARROWER_SHARE * widest ? { narrower } : {};
  },
};

function notes(_: VCarveCut, { facts }: CutPart<VCarveFacts>, __: VBit, unit: Job['unit']): string[] {
  if (!facts) return [];
  const out: string[] = [];
  if (facts.tooNarrow > NARROW_WORTH_SAYING)
    out.push(
      `${formatLength(facts.tooNarrow, unit)} of thin line is narrower than the tip and stays blank; choose a finer tip.`,
    );
  if (facts.floorArea > FLOOR_WORTH_SAYING)
    out.push(
      `The widest strokes would come to a point at ${formatLength(facts.fullDepth, unit)}; the depth limit or the bit leaves a flat floor of ${formatArea(facts.floorArea, unit)}.`,
    );
  return out;
}

/** Lines too thin for the tip. */
function blank({ facts }: SeenPart<VCarveFacts>): SheetMark[] {
  const { narrow } = facts ?? {};
  if (!narrow?.length) return [];
  const outlines = Array.from({ length: narrow.length / 4 }, (_, k) => ({
    points: narrow.subarray(4 * k, 4 * k + 4),
    closed: false,
  }));
  return [{ look: { tone: 'signal', line: 4 }, word: 'too thin for the tip', always: false, outlines, circles: [] }];
}

async function carve(job: Job, cut: VCarveCut, bit: VBit, artwork: CutArtwork, clipper: Clipper): Promise<CutPart[]> {
  const shape = profileOf(bit);
  const carvables = await artwork.carvables();
  if (carvables.places.length === 0) throw nothingToCut(carvables.open);
  const { lift } = job.stock;
  const clearing = clearBitsOf(job, cut.clearBits, Infinity);
  const { path, passes, ...facts } = await vCarve(
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
    artwork.step,
  );
  if (path.feed.length === 0)
    throw new CutProblem('Every chosen outline is narrower than the tip of this bit; choose a bit with a finer tip.');
  const parts = [cutPart<VCarveFacts>(cut, RANK, { path, passes, slope: shape.slope, facts })];
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
