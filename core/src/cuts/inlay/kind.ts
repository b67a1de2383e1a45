import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { radians } from '../../quantity/units.ts';
import { pocket } from '../../ways/pocket.ts';
import { profile } from '../../ways/profile.ts';
import { usualStep } from '../../tools/turned.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { freeInsides } from '../propose.ts';
import { areaToCut, type CutPart, cutPart } from '../cut-part.ts';
import { judgeFloor, shallowOnUneven } from '../floor-remarks.ts';
import type { CutKind } from '../kind.ts';
import { judgeMissing, judgeNotNeeded, missingWords, notNeededWords, tabsMissing } from '../tabs-remarks.ts';
import { judgeLargeTabs } from '../usual-tabs.ts';
import { byARamp, withUsualStep } from '../usual-tries.ts';
import type { InlayFacts } from './facts.ts';
import { FIELDS, heading, type InlayCut, sentence } from './fields.ts';
import { figure } from './figure.ts';
import { measuredFit } from './fit-words.ts';
import { inlayFit } from './inlay-fit.ts';
import { judgePair, judgePinched } from './judge.ts';
import { pinchedWords } from './pinched-words.ts';

/**
 * Gap between a part and its recess, mm a side, of a new inlay: 0.05 to 0.1 mm lets wood and glue in (common practice); what
 * a bit really cuts is found by trial on scrap.
 */
const USUAL_GAP = 0.06;

/** Tabs that hold a small part. */
const TABS_OF_PART = 3;

/** One half of an inlay: the recess, which is a pocket, or the part, which is cut out. */
export const inlayKind: CutKind<InlayCut, InlayFacts, Bit> = {
  fields: FIELDS,
  verb: 'Inlay',
  title: (cut) => `Inlay ${cut.role} of`,
  one: 'an inlay',
  sentence,
  heading,
  figure,
  mark: { look: { tone: 'ink', fill: 'cross', line: 1.2 }, word: 'inlay' },
  facts: ({ facts }, _, unit) => (facts ? [['', measuredFit(facts.gap, unit)]] : []),
  notes: (_, { facts, tabsMissing: missing }, __, unit) => [
    ...missingWords(missing),
    ...notNeededWords(facts?.heldBy),
    ...(facts?.pinched ? [pinchedWords(facts.pinched)] : []),
    ...(facts
      ? [
          `Part and recess fit with ${measuredFit(facts.gap, unit)}, ${facts.pinched ? 'those places counted' : 'all round'}.`,
        ]
      : []),
  ],
  bits: ['end'],
  rank: (cut) => (cut.role === 'recess' ? 2.5 : 4),
  closedOnly: true,
  fresh: ({ bit, thick, step, entry, tabs }) => ({
    role: 'recess',
    otherDiameter: bit.diameter,
    allowance: USUAL_GAP,
    depth: Math.min(thick / 3, bit.flute),
    step,
    climb: true,
    entry,
    tabs: { ...tabs, count: Math.min(tabs.count, TABS_OF_PART) },
    shift: { x: 0, y: 0 },
  }),
  // The part is laid beside the recess when its outlines are known.
  beside: (cut) => [{ ...cut, id: `${cut.id}-part`, role: 'part' }],
  half: (cut) => cut.role,
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  fromBit: (bit) => ({ step: usualStep(bit) }),
  proposes: () => [freeInsides],
  goDeep: (depth) => ({ depth }),
  deeper: ({ depth }, by) => ({ depth: depth + by }),
  tries: (_, own) => [...withUsualStep(own), ...byARamp(own)],
  make: inlaid,
  judge: (judged) => [
    ...(judged.cut.role === 'recess'
      ? judgeFloor(judged)
      : [...judgeMissing(judged), ...judgeLargeTabs(judged), ...judgeNotNeeded(judged, judged.result.facts?.heldBy)]),
    ...judgePinched(judged),
    ...judgePair(judged),
  ],
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
  onUneven: (_, { depth }, drop) => shallowOnUneven(depth, drop),
};

function inlaid(job: Job, cut: InlayCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart<InlayFacts>[] {
  const area = areaToCut(artwork);
  const { diameter } = bit;
  const { gap, pinched, ...fit } = inlayFit(area, Math.max(diameter, cut.otherDiameter) / 2, cut.allowance, clipper);
  const drive = { feed: cut.feed, plunge: cut.plunge, lift: job.stock.lift, diameter };
  if (cut.role === 'recess') {
    const { path, passes } = pocket(
      fit.recess,
      {
        ...drive,
        depth: cut.depth,
        depthPerPass: cut.depthPerPass,
        lastPass: cut.lastPass,
        step: cut.step,
        pattern: 'rings',
        angle: 0,
        climb: cut.climb,
        limits: job.bench.limits,
        finish: 0,
        entry: { kind: cut.entry.kind, angle: radians(cut.entry.angle) },
      },
      clipper,
    );
    return [cutPart(cut, inlayKind.rank(cut), { path, passes, facts: { gap, pinched } })];
  }
  const laid = fit.part.map((loop) => loop.map((v, i) => v + (i % 2 ? cut.shift.y : cut.shift.x)));
  const { path, passes, tabs, starts, heldBy } = profile(
    laid,
    {
      ...drive,
      side: 'outside',
      depth: cut.depth,
      depthPerPass: cut.depthPerPass,
      lastPass: cut.lastPass,
      climb: cut.climb,
      tabs: cut.tabs,
      skin: cut.skin,
      ramp: cut.entry.kind === 'plunge' ? 0 : radians(cut.entry.angle),
      thickness: cut.depth,
    },
    clipper,
  );
  const missing = tabsMissing(cut.tabs, { tabs, starts, heldBy });
  return [
    cutPart(cut, inlayKind.rank(cut), { path, passes, tabs, tabsMissing: missing, facts: { gap, pinched, heldBy } }),
  ];
}
