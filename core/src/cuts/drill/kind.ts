import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import { formatLength } from '../../quantity/format.ts';
import { thickest } from '../../stock/stock.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { drill } from '../../ways/drill.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { type CutPart, cutPart, type SeenPart } from '../cut-part.ts';
import { judgeThroughBoard, shallowOnUneven } from '../floor-remarks.ts';
import type { CutKind, SheetMark } from '../kind.ts';
import { DEEPEST_PAST, rightThrough } from '../past-the-stock.ts';
import { circlesFor } from '../propose.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { judgeDrawnLarger } from './drawn-larger.ts';
import { drawnSizes, drawnWords } from './drawn-sizes.ts';
import { judgeDrawnSmaller } from './drawn-smaller.ts';
import type { DrillFacts } from './facts.ts';
import { type DrillCut, FIELDS, heading, sentence } from './fields.ts';
import { figure } from './figure.ts';

const RANK = 0;

/** Holes at the middles of circles. */
export const drillKind: CutKind<DrillCut, DrillFacts, Bit> = {
  fields: FIELDS,
  verb: 'Drill',
  one: 'holes',
  sentence,
  heading,
  figure,
  mark: { look: { tone: 'ink', line: 0.8 }, word: 'hole' },
  marks: holesOf,
  facts: ({ facts }) => (facts ? [[String(facts.holes.length), facts.holes.length === 1 ? 'hole' : 'holes']] : []),
  notes: (_, { facts }, own, unit) => [
    ...Object.values(drawnSizes(facts, own)).flatMap((sizes) =>
      sizes.length > 0 ? [drawnWords(sizes, own, unit)] : [],
    ),
    ...lostWords(facts?.lost ?? 0),
  ],
  bits: ['drill', 'end'],
  rank: () => RANK,
  closedOnly: false,
  fresh: ({ bit, through, peck }) => ({ depth: Math.min(through, bit.flute), peck, retract: 'full', dwell: 0 }),
  proposes: (bit) => [circlesFor(bit)],
  goDeep: (depth) => ({ depth }),
  deeper: ({ depth }, by) => ({ depth: depth + by }),
  make: drilled,
  judge: (judged) => [
    ...judgeThroughBoard(judged),
    ...judgeIntoBoard(judged),
    ...judgeDrawnLarger(judged),
    ...judgeDrawnSmaller(judged),
    ...judgeNotRound(judged),
  ],
  cycle: ({ depth, peck, retract, dwell }, { facts }) =>
    facts ? { depth, peck, retract, dwell, holes: facts.holes } : undefined,
  // Drilling goes by pecks, and takes none of a pass.
  takenAtOnce: () => 0,
  onUneven: (_, { depth }, drop) => shallowOnUneven(depth, drop),
};

function lostWords(lost: number): string[] {
  if (lost === 0) return [];
  return [
    lost === 1 ? 'One outline is neither a circle nor a point.' : `${lost} outlines are neither circles nor points.`,
  ];
}

function drilled(job: Job, cut: DrillCut, _: Bit, artwork: CutArtwork): CutPart<DrillFacts>[] {
  const { places, others } = artwork.places();
  if (places.length === 0)
    throw new CutProblem(
      others === 0
        ? 'No circles are chosen for this cut; choose some on the sheet.'
        : 'None of the chosen outlines is a circle or a point; holes are drilled at the centres of circles.',
    );
  const { path, holes, dwells } = drill(places, { ...cut, lift: job.stock.lift });
  return [
    cutPart(cut, RANK, {
      path,
      dwells: dwells.length > 0 ? { points: dwells, seconds: cut.dwell } : undefined,
      facts: { holes, lost: others },
    }),
  ];
}

/** The holes that will be there, as wide as the bit, whatever was drawn. */
function holesOf({ facts, radius }: SeenPart<DrillFacts>): SheetMark[] {
  const circles = (facts?.holes ?? []).map(({ x, y }) => ({ x, y, radius }));
  return [{ look: { tone: 'carved', fill: 'solid' }, word: 'hole', always: true, outlines: [], circles }];
}

function judgeIntoBoard({ job, cut, index }: JudgedCut<DrillCut>): Remark[] {
  const { stock, unit } = job;
  const past = cut.depth - thickest(stock);
  if (past > stock.spoilboard || past <= DEEPEST_PAST) return [];
  const through = rightThrough(stock);
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `spoilboard-${cut.id}`,
      weight: 'advice',
      text: `These holes go through the stock and ${formatLength(past, unit)} into the spoilboard.`,
      remedies: [{ label: `Drill ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
    },
  ];
}

function judgeNotRound({ cut, result }: JudgedCut<DrillCut, DrillFacts>): Remark[] {
  const lost = result.facts?.lost ?? 0;
  if (lost === 0) return [];
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `not-round-${cut.id}`,
      weight: 'advice',
      text: `${lost === 1 ? 'One chosen outline is' : `${lost} chosen outlines are`} neither a circle nor a point, and no hole is drilled there.`,
      remedies: [],
    },
  ];
}
