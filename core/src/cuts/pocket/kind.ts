import { presetFor } from '../../tools/preset-for.ts';
import { usualStep } from '../../tools/turned.ts';
import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { formatArea, formatLength } from '../../quantity/format.ts';
import { radians } from '../../quantity/units.ts';
import { pocket, type PocketSettings } from '../../ways/pocket.ts';
import { clearBitsOf, cleared } from '../clearing.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { areaToCut, type CutPart, cutPart } from '../cut-part.ts';
import { judgeFloor, shallowOnUneven } from '../floor-remarks.ts';
import type { CutKind } from '../kind.ts';
import { leftStanding } from '../left-standing.ts';
import { freeInsides } from '../propose.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { nextSmallerMill } from '../smaller-bit.ts';
import { byARamp, withOneBit, withoutFinish, withUsualStep } from '../usual-tries.ts';
import type { PocketFacts } from './facts.ts';
import { FIELDS, heading, more, type PocketCut, sentence } from './fields.ts';
import { figure } from './figure.ts';
import { quicker } from './quicker.ts';

const RANK = 2.5;

/** What no bit reaches that is worth a word, mm². */
const LEFT_WORTH_SAYING = 1;

/** An area cleared to a depth. */
export const pocketKind: CutKind<PocketCut, PocketFacts, Bit> = {
  fields: FIELDS,
  verb: 'Pocket',
  one: 'a pocket',
  sentence,
  more,
  heading,
  figure,
  mark: { look: { tone: 'ink', fill: 'hatch', line: 1.2 }, word: 'pocket' },
  marks: ({ facts }) => leftStanding(facts?.leftLoops),
  notes: (_, { facts }, own, unit) =>
    facts && facts.left > LEFT_WORTH_SAYING
      ? [
          `${formatArea(facts.left, unit)} in corners and narrow places stays; inner corners have a radius of ${formatLength(own.diameter / 2, unit, 2)}.`,
        ]
      : [],
  bits: ['end'],
  rank: () => RANK,
  clearBits: (cut) => cut.clearBits,
  closedOnly: true,
  fresh: ({ bit, thick, step, entry }) => ({
    depth: Math.min(thick / 3, bit.flute),
    step,
    pattern: 'rings',
    climb: true,
    entry,
  }),
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  fromBit: (bit) => ({ step: usualStep(bit) }),
  proposes: () => [freeInsides],
  goDeep: (depth) => ({ depth }),
  deeper: ({ depth }, by) => ({ depth: depth + by }),
  tries: (cut, own) => [...withUsualStep(own), ...withOneBit(cut, own), ...withoutFinish(cut), ...byARamp(own)],
  quicker,
  make: pocketed,
  judge: (judged) => [...judgeFloor(judged), ...judgeLeft(judged)],
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
  onUneven: (_, { depth }, drop) => shallowOnUneven(depth, drop),
};

function pocketed(job: Job, cut: PocketCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart[] {
  const area = areaToCut(artwork);
  const { diameter } = bit;
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
  return [...before, cutPart<PocketFacts>(cut, RANK, { path, passes, facts: { left, leftLoops: leftLoops ?? [] } })];
}

/** Corners at least as round as the smallest bit, and narrow places. */
function judgeLeft({ job, cut, index, own: bit, result }: JudgedCut<PocketCut, PocketFacts, Bit>): Remark[] {
  const left = result.facts?.left ?? 0;
  const smaller = nextSmallerMill(job, bit.diameter);
  if (left < LEFT_WORTH_SAYING || !smaller) return [];
  const preset = presetFor(smaller, job.stock);
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `corners-${cut.id}`,
      weight: 'advice',
      text: `${bit.name} leaves ${formatArea(left, job.unit)} in corners and narrow places; inner corners come out with a radius of ${formatLength(bit.diameter / 2, job.unit, 2)}.`,
      remedies: [
        {
          label: `Clear with ${bit.name}, finish with ${smaller.name}`,
          patch: setCut(index, {
            bit: smaller.id,
            clearBits: [...cut.clearBits, bit.id],
            step: usualStep(smaller),
            ...(preset && {
              feed: preset.feed,
              plunge: preset.plunge,
              speed: preset.speed,
              depthPerPass: preset.depthPerPass,
            }),
          }),
        },
      ],
    },
  ];
}
