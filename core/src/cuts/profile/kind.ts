import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { formatLength } from '../../quantity/format.ts';
import { radians } from '../../quantity/units.ts';
import { thickest } from '../../stock/stock.ts';
import { presetFor } from '../../tools/preset-for.ts';
import type { MovedOutlines } from '../../ways/moved-outlines.ts';
import { profile, type ProfileSettings } from '../../ways/profile.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { areaToCut, type CutPart, cutPart, type SeenPart } from '../cut-part.ts';
import { shallowOnUneven } from '../floor-remarks.ts';
import { togetherNotes, togetherTexts } from '../grown-together.ts';
import type { CutKind, Handle } from '../kind.ts';
import { judgeLargeTabs } from '../usual-tabs.ts';
import { DEEPEST_PAST, rightThrough } from '../past-the-stock.ts';
import { freeInsides, outerBorder } from '../propose.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { nextSmallerMill } from '../smaller-bit.ts';
import {
  judgeLoose,
  judgeMissing,
  judgeNotNeeded,
  missingWords,
  notNeededWords,
  tabsMissing,
} from '../tabs-remarks.ts';
import { withoutFinish } from '../usual-tries.ts';
import type { ProfileFacts } from './facts.ts';
import { FIELDS, heading, more, type ProfileCut, sentence } from './fields.ts';
import { figure } from './figure.ts';

/** Past a stock whose zero is on the spoilboard, a through cut needs no more than this, mm. */
const ENOUGH_PAST_BOARD = 0.3;

/** A skin thinner than this, mm, may not have been meant. */
const THIN_SKIN = 1.5;

/** Along outlines, beside or on them, usually right through. */
export const profileKind: CutKind<ProfileCut, ProfileFacts, Bit> = {
  fields: FIELDS,
  verb: 'Cut out',
  one: 'a cut-out',
  sentence,
  more,
  heading,
  figure,
  mark: {
    look: { tone: 'ink', line: 1 },
    word: 'cut through',
    lines: true,
    way: { tone: 'ink', line: 1.8 },
    directed: true,
  },
  handles,
  facts: ({ facts }) => (facts?.noLead ? [['', 'no room for a lead']] : []),
  notes: (_, { facts, tabsMissing: missing }, __, unit) => [
    ...missedNotes(facts?.missed),
    ...missingWords(missing),
    ...notNeededWords(facts?.heldBy),
    ...(facts?.noLead ? [`${facts.noLead} outlines have no room for the lead, and are entered straight.`] : []),
    ...togetherNotes({ overlaps: 0, touching: facts?.touching ?? 0 }, unit),
  ],
  bits: ['end'],
  rank: (cut) => (cut.side === 'outside' ? 4 : 3),
  closedOnly: true,
  fresh: ({ through, tabs }) => ({ side: 'outside', depth: through, climb: true, tabs }),
  board: (cut) => cut.depth,
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  proposes: () => [outerBorder, freeInsides],
  goDeep: (depth) => ({ depth }),
  deeper: ({ depth }, by) => ({ depth: depth + by }),
  tries: withoutFinish,
  make: profiled,
  judge: (judged) => [
    ...judgeThrough(judged),
    ...judgeLost(judged),
    ...judgeTouching(judged),
    ...judgeLoose(judged),
    ...judgeMissing(judged),
    ...judgeLargeTabs(judged),
    ...judgeNotNeeded(judged, judged.result.facts?.heldBy),
  ],
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
  // What goes right through is as deep as the stock everywhere.
  onUneven: (_, { depth }, drop, thick) => (depth >= thick ? {} : shallowOnUneven(depth, drop)),
};

function profiled(job: Job, cut: ProfileCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart<ProfileFacts>[] {
  const area = areaToCut(artwork);
  const { touching } = artwork.area();
  const settings: ProfileSettings = {
    feed: cut.feed,
    plunge: cut.plunge,
    lift: job.stock.lift,
    diameter: bit.diameter,
    side: cut.side,
    depth: cut.depth,
    depthPerPass: cut.depthPerPass,
    lastPass: cut.lastPass,
    skin: cut.skin,
    finish: cut.finish,
    climb: cut.climb,
    tabs: cut.tabs,
    lead: cut.lead,
    ramp: radians(cut.ramp),
    overlap: cut.overlap,
    start: cut.start,
    thickness: thickest(job.stock),
  };
  const { path, passes, tabs, ...ways } = profile(area, settings, clipper);
  const facts = { ...ways, touching };
  const missing = tabsMissing(cut.tabs, { tabs, ...facts });
  return [cutPart(cut, profileKind.rank(cut), { path, passes, tabs, tabsMissing: missing, facts })];
}

/** Its tabs, and where its loops start: moved one by one, they all become places chosen by hand. */
function handles(cut: ProfileCut, { tabs, facts }: SeenPart<ProfileFacts>): Handle[] {
  const rounded = ({ x, y }: { x: number; y: number }) => ({
    x: Math.round(x * 100) / 100,
    y: Math.round(y * 100) / 100,
  });
  const standing = tabs.map(rounded);
  const starts = (facts?.starts ?? []).map(rounded);
  return [
    ...tabs.map(({ x, y }, k): Handle => ({
      look: 'tab',
      word: 'tab',
      x,
      y,
      put(at) {
        const places = at ? standing.with(k, rounded(at)) : standing.toSpliced(k, 1);
        return { tabs: { ...cut.tabs, at: places, count: places.length } };
      },
    })),
    ...(facts?.starts ?? []).map(({ x, y }, k): Handle => ({
      look: 'start',
      word: 'start',
      x,
      y,
      // A loop whose start is taken away has none of its own: Kerbe chooses them all again.
      put: (at) => ({ start: at ? starts.with(k, rounded(at)) : [] }),
    })),
  ];
}

/** How far it goes past the stock, or stops short of it. */
function judgeThrough({ job, cut, index }: JudgedCut<ProfileCut>): Remark[] {
  const { stock, unit } = job;
  const about = { stop: 'cuts', cut: cut.id } as const;
  const through = rightThrough(stock);
  const past = cut.depth - thickest(stock);
  const remedies = [{ label: `Cut ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }];
  const onBoard = stock.zeroZ === 'spoilboard';
  if (past > DEEPEST_PAST || (onBoard && past > ENOUGH_PAST_BOARD)) {
    const board =
      past > stock.spoilboard
        ? 'and right through the spoilboard'
        : `and ${formatLength(past, unit)} into the spoilboard`;
    return [
      {
        ...about,
        id: `spoilboard-${cut.id}`,
        weight: past > stock.spoilboard ? 'wrong' : 'advice',
        text: `This cut goes through the stock ${board}${onBoard ? ', although zero is on the board and a hair past it is enough' : ''}.`,
        remedies,
      },
    ];
  }
  if (past >= 0 || past <= -THIN_SKIN) return [];
  return [
    {
      ...about,
      id: `not-through-${cut.id}`,
      weight: 'advice',
      text: `This cut leaves a skin of ${formatLength(-past, unit, 2)} under the thickest corner. That is fine if it is meant; to come free, it has to go past the stock.`,
      remedies,
    },
  ];
}

/** Shapes that are one where they touch; where they overlap, as letters of a script do, that is meant. */
function judgeTouching({ job, cut, result }: JudgedCut<ProfileCut, ProfileFacts>): Remark[] {
  const together = { overlaps: 0, touching: result.facts?.touching ?? 0 };
  return togetherTexts(together, job.unit, false).map(({ id, text }): Remark => ({ stop: 'cuts', cut: cut.id, id: `${id}-${cut.id}`, weight: 'advice', text, remedies: [] })); // prettier-ignore
}

/** Outlines that the bit does not fit into, or not through, or not between. */
function judgeLost({ job, cut, index, result }: JudgedCut<ProfileCut, ProfileFacts>): Remark[] {
  const { lost = 0, split = 0, grown = 0 } = result.facts?.missed ?? {};
  const bit = job.bits.find((b) => b.id === cut.bit)!;
  const smaller = nextSmallerMill(job, bit.diameter);
  const preset = smaller && presetFor(smaller, job.stock);
  const driven = preset && { feed: preset.feed, plunge: preset.plunge, speed: preset.speed, depthPerPass: preset.depthPerPass }; // prettier-ignore
  const finer = smaller ? [{ label: `Use ${smaller.name}`, patch: setCut(index, { bit: smaller.id, ...driven }) }] : [];
  const onTheLine = [{ label: 'Cut on the line', patch: setCut(index, { side: 'on' }) }];
  const said = (id: string, count: number, text: string, remedies: Remark['remedies']): Remark[] =>
    count > 0
      ? [
          {
            stop: 'cuts',
            cut: cut.id,
            id: `${id}-${cut.id}`,
            weight: 'wrong',
            text: `${bit.name} does not fit ${text}`,
            remedies,
          },
        ]
      : [];
  return [
    ...said('narrow', lost, `into ${some(lost)}, which would be left out.`, smaller ? finer : onTheLine),
    ...said('neck', split, `through a narrow place of ${some(split)}, and what lies there would stay; take a finer one.`, []),
    ...said('grown', grown, `between ${some(grown)} and another, and they would come out as one; move them apart by more than it is wide, or take a finer one.`, []),
  ]; // prettier-ignore
}

const some = (count: number): string => (count === 1 ? 'one of the outlines' : `${count} of the outlines`);

function missedNotes({ lost = 0, split = 0, grown = 0 }: Partial<MovedOutlines> = {}): string[] {
  return [
    ...(lost ? [`The bit does not fit into ${some(lost)}, which are left out.`] : []),
    ...(split ? [`The bit does not fit through a narrow place of ${some(split)}, and what lies there stays.`] : []),
    ...(grown ? [`The bit does not fit between ${some(grown)} and another, and they come out as one.`] : []),
  ];
}
