import type { Bit } from '../../document/bit.ts';
import type { PocketCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { radians } from '../../quantity/units.ts';
import { pocket, type PocketSettings } from '../../ways/pocket.ts';
import { clearBitsOf, cleared } from '../clearing.ts';
import { usualStep } from '../../bits/bit.ts';
import { areaToCut, type CutArtwork, type CutPart, cutPart, endMill } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { byARamp, withOneBit, withoutFinish, withUsualStep } from '../usual-tries.ts';

const RANK = 2.5;

/** An area cleared to a depth. */
export const pocketKind: CutKind<PocketCut> = {
  verb: 'Pocket',
  mark: { look: 'hatched', word: 'pocket' },
  bits: ['end'],
  rank: () => RANK,
  clearBits: (cut) => cut.clearBits,
  fresh: ({ bit, thick, step, entry }) => ({
    depth: Math.min(thick / 3, bit.flute),
    step,
    pattern: 'rings',
    climb: true,
    entry,
  }),
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  fromBit: (bit) => ({ step: usualStep(bit) }),
  tries: (cut, own) => [...withUsualStep(own), ...withOneBit(cut, own), ...withoutFinish(cut), ...byARamp(own)],
  make: pocketed,
  details: (cut, length) =>
    `${cut.pattern} at ${length(cut.step)}, ${length(cut.depthPerPass)} a pass, ${cut.climb ? 'climb' : 'conventional'}, ${cut.entry.kind}`,
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
};

function pocketed(job: Job, cut: PocketCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart[] {
  const area = areaToCut(artwork);
  const diameter = endMill(bit, 'A pocket');
  const clearing = clearBitsOf(job, cut.clearBits, diameter);
  const before = cleared(
    job,
    cut,
    clearing,
    area,
    {
      depth: cut.depth,
      startDepth: cut.startDepth,
      rank: RANK - 0.5,
      depthPerPass: cut.depthPerPass,
      like: { ...cut, stepShare: cut.step / diameter },
    },
    clipper,
  );
  const settings: PocketSettings = {
    feed: cut.feed,
    plunge: cut.plunge,
    lift: job.stock.lift,
    diameter,
    depth: cut.depth,
    startDepth: cut.startDepth,
    depthPerPass: cut.depthPerPass,
    lastPass: cut.lastPass,
    step: cut.step,
    pattern: cut.pattern,
    angle: radians(cut.angle),
    climb: cut.climb,
    finish: cut.finish,
    slots: cut.slots,
    limits: job.bench.limits,
    entry: { kind: cut.entry.kind, angle: radians(cut.entry.angle) },
    clearedBy: clearing.filter((b) => clipper.offset(area, -b.diameter / 2).length > 0).map((b) => b.diameter / 2),
  };
  const { path, left, leftLoops, passes } = pocket(area, settings, clipper);
  return [...before, cutPart(cut, RANK, { path, left, leftLoops, passes })];
}
