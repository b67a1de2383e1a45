import { formatLength } from '../../quantity/format.ts';
import type { ChartRow, Nozzle } from '../../tools/nozzle/fields.ts';
import type { SeenPart } from '../cut-part.ts';
import { togetherNotes } from '../grown-together.ts';
import type { CutKind, Handle, SheetMark } from '../kind.ts';
import type { Proposal } from '../propose.ts';
import { charted } from './charted.ts';
import { burnt, rankOf } from './burn.ts';
import type { PlasmaFacts } from './facts.ts';
import { FIELDS, heading, more, type PlasmaCut, sentence } from './fields.ts';
import { figure } from './figure.ts';
import { judgeBurnt } from './judge.ts';

/** What a new cut is set to where its nozzle's chart is empty, mm and s. */
const USUAL = { kerf: 1.5, pierceHeight: 3.8, pierceDelay: 0.8, cutHeight: 1.5, feed: 2000 };

/** Everything closed, with what lies inside it. */
const allClosed: Proposal = {
  takes: ({ closed, free }) => closed && free,
  why: 'the closed outlines that no cut has yet',
};

/** Kerfs right through a sheet, beside lines and on them, by an arc. */
export const plasmaKind: CutKind<PlasmaCut, PlasmaFacts, Nozzle> = {
  fields: FIELDS,
  verb: 'Plasma-cut',
  one: 'a plasma cut',
  sentence,
  more,
  heading,
  without: {
    speed: 'An arc has no --speed; leave it out.',
    plunge: 'A torch is lowered by its table, so there is no --plunge; leave it out.',
    depth: 'An arc goes right through, so there is no --depth; say how thick the sheet is with --thickness.',
    ramp: 'A torch pierces, so it has no --ramp; leave it out.',
  },
  tool: 'nozzle:45',
  thicknessNeeded: 'Say how thick the sheet is with --thickness, for example --thickness 3.4 or --thickness 10ga.',
  figure,
  mark: {
    look: { tone: 'ink', line: 1 },
    word: 'kerf',
    lines: true,
    way: { tone: 'signal', line: 1.4, arrows: true },
    directed: true,
  },
  marks,
  handles,
  facts: ({ facts }) =>
    facts
      ? [
          [String(facts.pierces.length), facts.pierces.length === 1 ? 'pierce' : 'pierces'],
          ['', facts.by === 'here' ? 'kerf taken off here' : 'kerf left to the controller'],
          ...(facts.lifted > 0 ? [[String(facts.lifted), 'links high over freed pieces'] as [string, string]] : []),
        ]
      : [],
  notes: (cut, { facts }, _, unit) =>
    facts
      ? [
          facts.by === 'here'
            ? `The kerf of ${formatLength(cut.kerf, unit, 2)} is taken off here; a controller that takes it off, too, would take it twice.`
            : `The kerf of ${formatLength(cut.kerf, unit, 2)} is left to the controller; the program follows the lines, and tells it on which side the kerf lies.`,
          ...(facts.noLead ? [`No room for a lead, and pierced on the line: ${facts.noLead}.`] : []),
          ...(facts.shorter ? [`Leads shorter than asked for, for want of room: ${facts.shorter}.`] : []),
          ...(facts.tooSmall.length
            ? [`Holes small for this sheet, which may not come out: ${facts.tooSmall.length}; pierce them only with --too-small mark, and drill them.`] // prettier-ignore
            : []),
          ...(facts.islands.length
            ? [`Islands that would drop out: ${facts.islands.length}; tie them with --bridges 3.2.`]
            : []),
          ...(facts.closes
            ? ['The kerf is wider than a slot, a hole or what lies between parts, which closes up or is left out.']
            : []),
          ...togetherNotes(facts, unit),
          ...(facts.empty ? [`Left out, all points in one place: ${facts.empty}.`] : []),
        ]
      : [],
  bits: ['nozzle'],
  finest: (a, b) => Math.min(...a.presets.map(({ kerf }) => kerf)) - Math.min(...b.presets.map(({ kerf }) => kerf)),
  rank: rankOf,
  closedOnly: false,
  carves: true,
  fresh: ({ preset }) => ({ ...charted({ ...USUAL, ...preset }), lead: { kind: 'arc', length: 4 } }),
  fromPreset: (cut, preset: ChartRow) => charted({ ...cut, ...preset }),
  proposes: () => [allClosed],
  goDeep: () => ({}),
  make: burnt,
  judge: judgeBurnt,
  takenAtOnce: () => 0,
};

/** Where it pierces, and what does not come out as it is drawn. */
function marks({ facts }: SeenPart<PlasmaFacts>): SheetMark[] {
  if (!facts) return [];
  const out: SheetMark[] = [
    {
      look: { tone: 'signal', line: 1.5 },
      word: 'pierced here',
      always: false,
      outlines: [],
      circles: facts.pierces.map(({ x, y }) => ({ x, y, radius: facts.kerf })),
    },
  ];
  const loops = (points: readonly Float64Array[]) => points.map((each) => ({ points: each, closed: true }));
  if (facts.narrow.length)
    out.push({ look: { tone: 'signal', line: 2 }, word: 'narrower than the kerf', always: true, outlines: loops(facts.narrow), circles: [] }); // prettier-ignore
  if (facts.islands.length)
    out.push({ look: { tone: 'signal', fill: 'hatch' }, word: 'drops out', always: true, outlines: loops(facts.islands), circles: [] }); // prettier-ignore
  if (facts.tooSmall.length)
    out.push({
      look: { tone: 'ink', line: 1.5, dash: [3, 3] },
      word: 'small for this sheet',
      always: false,
      outlines: [],
      circles: facts.tooSmall.map(({ x, y, diameter }) => ({ x, y, radius: diameter / 2 + facts.kerf })),
    });
  return out;
}

/** Where its loops are come to: moved one by one, they all become places chosen by hand. */
function handles(_: PlasmaCut, { facts }: SeenPart<PlasmaFacts>): Handle[] {
  const rounded = ({ x, y }: { x: number; y: number }) => ({
    x: Math.round(x * 100) / 100,
    y: Math.round(y * 100) / 100,
  });
  const starts = (facts?.starts ?? []).map(rounded);
  return (facts?.starts ?? []).map(({ x, y }, k): Handle => ({
    look: 'start',
    word: 'start',
    x,
    y,
    // A loop whose start is taken away has none of its own: Kerbe chooses them all again.
    put: (at) => ({ start: at ? starts.with(k, rounded(at)) : [] }),
  }));
}
