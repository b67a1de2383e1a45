import { formatLength } from '../../quantity/format.ts';
import type { Beam, BeamSettings } from '../../tools/beam/fields.ts';
import { WITHOUT_A_SPINDLE } from '../fields/burning.ts';
import type { SeenPart } from '../cut-part.ts';
import { togetherNotes } from '../grown-together.ts';
import type { CutKind, SheetMark } from '../kind.ts';
import type { Proposal } from '../propose.ts';
import { cutThrough, rankOf } from './cut-through.ts';
import type { LaserCutFacts } from './facts.ts';
import { FIELDS, heading, type LaserCut, more, sentence } from './fields.ts';
import { figure } from './figure.ts';
import { judgeCutThrough } from './judge.ts';

/** What a new cut is set to where its beam has no settings. */
const USUAL = { cutPower: 80, cutFeed: 600, cutPasses: 1 };

/** Everything closed, with what lies inside it. */
const allClosed: Proposal = {
  takes: ({ closed, free }) => closed && free,
  why: 'the closed outlines that no cut has yet',
};

const set = ({ cutPower, cutFeed, cutPasses }: Pick<BeamSettings, keyof typeof USUAL>) => ({ power: cutPower, feed: cutFeed, passes: cutPasses }); // prettier-ignore

/** Kerfs right through, beside lines and on them, by a beam. */
export const laserCutKind: CutKind<LaserCut, LaserCutFacts, Beam> = {
  fields: FIELDS,
  verb: 'Laser-cut',
  one: 'a laser cut',
  sentence,
  more,
  heading,
  without: WITHOUT_A_SPINDLE,
  tool: 'beam:0.2',
  board: () => 3,
  figure,
  mark: { look: { tone: 'ink', line: 1 }, word: 'kerf', lines: true, way: { tone: 'signal', line: 1.4 } },
  marks: nearEdge,
  facts: ({ facts }, length) =>
    facts
      ? [
          [String(facts.lines), facts.lines === 1 ? 'line' : 'lines'],
          [length(facts.kerf, 2), 'kerf, half of it beside the lines'],
        ]
      : [],
  notes: (cut, { facts }, _, unit) =>
    facts
      ? [
          `The kerf of ${formatLength(cut.kerf, unit, 2)} is taken off here.`,
          ...(facts.nearEdge.length
            ? [`Holes nearer to an edge than they are wide, which may burn through: ${facts.nearEdge.length}.`]
            : []),
          ...(facts.closes
            ? ['The kerf is wider than a slot, a hole or what lies between parts, which closes up or is left out.']
            : []),
          ...togetherNotes(facts, unit),
          ...(facts.empty ? [`Left out, all points in one place: ${facts.empty}.`] : []),
        ]
      : [],
  bits: ['beam'],
  rank: rankOf,
  closedOnly: false,
  carves: true,
  fresh: ({ bit, preset }) => ({ ...set(preset ?? (USUAL as BeamSettings)), kerf: bit.diameter }),
  fromPreset: (_, preset: BeamSettings) => set(preset),
  toPreset: ({ power, feed, passes }) => ({ cutPower: power, cutFeed: feed, cutPasses: passes }),
  fromBit: ({ diameter }) => ({ kerf: diameter }),
  proposes: () => [allClosed],
  goDeep: () => ({}),
  make: cutThrough,
  judge: judgeCutThrough,
  takenAtOnce: () => 0,
};

/** Holes whose web to an edge may burn through. */
function nearEdge({ facts }: SeenPart<LaserCutFacts>): SheetMark[] {
  if (!facts?.nearEdge.length) return [];
  const circles = facts.nearEdge.map(({ x, y, wide }) => ({ x, y, radius: wide / 2 + facts.kerf }));
  return [{ look: { tone: 'signal', line: 1.5, dash: [3, 3] }, word: 'near an edge', always: false, outlines: [], circles }]; // prettier-ignore
}
