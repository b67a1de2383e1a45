import { formatLength } from '../../quantity/format.ts';
import type { DragPoint } from '../../tools/drag/fields.ts';
import type { CutKind, SheetMark } from '../kind.ts';
import type { SeenPart } from '../cut-part.ts';
import { freeInsides, openLines } from '../propose.ts';
import { drawn, RANK } from './draw.ts';
import type { DragFacts } from './facts.ts';
import { type DragCut, FIELDS, heading, more, sentence } from './fields.ts';
import { figure } from './figure.ts';
import { judgeDrawn } from './judge.ts';

/** How far a point is usually pressed, mm: about 0.1 in (common practice). */
const USUAL_PRESSED = 2.54;
/** A usual step, as a share of the line's width: 0.025 in where it is 0.020 in (common practice). */
const USUAL_STEP = 1.25;

const thousandth = (mm: number) => Math.max(0.01, Math.round(mm * 1000) / 1000);

/** Lines that a point which does not turn is drawn along, and areas that it fills with lines. */
export const dragKind: CutKind<DragCut, DragFacts, DragPoint> = {
  fields: FIELDS,
  verb: 'Draw',
  one: 'a drag engraving',
  sentence,
  more,
  heading,
  without: {
    speed: 'A drag point does not turn, so it has no --speed; leave it out.',
    plunge: 'A drag point goes down at once, held by its spring, so it has no --plunge; leave it out.',
    ramp: 'A drag point goes down at once, held by its spring, so it has no --ramp; leave it out.',
    depth: 'A drag point leaves a line and no depth; say how far its spring is pressed with --pressed.',
  },
  figure,
  mark: { look: { tone: 'carved', line: 1 }, word: 'drawn', lines: true },
  marks: closedUp,
  facts: ({ facts }, length) =>
    facts
      ? [
          [String(facts.runs), facts.runs === 1 ? 'run' : 'runs'],
          [length(facts.width, 2), 'wide'],
          ...(facts.across
            ? [[[facts.across.least, facts.across.usual, facts.across.most].join(' / '), 'lines across (least, usual, most)'] as [string, string]] // prettier-ignore
            : []),
          ...(facts.overlap === null
            ? []
            : [[`${Math.round(Math.abs(facts.overlap) * 100)} %`, facts.overlap >= 0 ? 'overlap' : 'of a line left between'] as [string, string]]), // prettier-ignore
          ...(facts.nose === null ? [] : [[length(facts.nose, 2), 'deep at most, by its nose'] as [string, string]]),
        ]
      : [],
  notes: (cut, { facts }, own, unit) =>
    facts
      ? [
          `The lines come out ${formatLength(facts.width, unit, 2)} wide; pressed ${formatLength(cut.pressed, unit, 2)} of ${formatLength(own.travel, unit, 2)}, the spindle off.`,
          ...(facts.across
            ? [
                `Strokes have ${facts.across.least} to ${facts.across.most} lines across, usually ${facts.across.usual}.`,
              ]
            : []),
          ...(facts.closed.length > 0
            ? [`${facts.closed.length === 1 ? 'One place closes' : `${facts.closed.length} places close`} up at this line width; draw larger with --larger, or take a finer point.`] // prettier-ignore
            : []),
        ]
      : [],
  bits: ['drag'],
  finest: (a, b) => a.width - b.width,
  rank: () => RANK,
  closedOnly: false,
  carves: true,
  fresh: ({ bit, preset }) => ({
    pressed: Math.min(preset?.pressed ?? USUAL_PRESSED, bit.travel),
    step: thousandth(USUAL_STEP * bit.width),
  }),
  fromPreset: (cut, { pressed = cut.pressed }: { pressed?: number }) => ({ pressed }),
  fromBit: ({ width }) => ({ step: thousandth(USUAL_STEP * width) }),
  proposes: () => [freeInsides, openLines],
  goDeep: () => ({}),
  make: drawn,
  judge: judgeDrawn,
  takenAtOnce: () => 0,
};

/** Where lines run together, or a filling has no room. */
function closedUp({ facts }: SeenPart<DragFacts>): SheetMark[] {
  if (!facts?.closed.length) return [];
  const outlines = facts.closed.map((points) => ({ points, closed: true }));
  return [{ look: { tone: 'signal', line: 2 }, word: 'closes up', always: false, outlines, circles: [] }];
}
