import jsonPatch, { type Operation } from 'fast-json-patch';
import { formatLength, formatMinutes } from '../quantity/format.ts';
import type { Nodes } from '../artwork/refit-shapes.ts';
import type { PlacedItem } from '../artwork/place.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import { kindOf } from '../cuts/kinds.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import { titleOf, worksOn } from '../cuts/title.ts';
import { fewestChanges } from '../sequence/fewest-changes.ts';
import { setCut } from '../cuts/remark.ts';

/** What a job would come to: enough to compare two ways of doing it. */
export interface Outcome {
  minutes: number;
  bitChanges: number;
  /** Deepest point of each cut, mm, by the cut’s id; none where a cut cannot be made. */
  depths: Record<string, number | undefined>;
  /** Of each item of artwork, by its id. */
  nodes: Record<string, Nodes>;
}

/** Of a job’s result, what an outcome is made from. */
interface Computed {
  minutes: number;
  bitChanges: number;
  cuts: readonly CutResult[];
  items: readonly PlacedItem[];
}

export function outcomeOf({ minutes, bitChanges, cuts, items }: Computed): Outcome {
  return {
    minutes,
    bitChanges,
    depths: Object.fromEntries(cuts.map((cut) => [cut.cut, cut.problem === undefined ? cut.depth : undefined])),
    nodes: Object.fromEntries(items.map(({ id, nodes }) => [id, nodes])),
  };
}

/** A way to be done sooner, with what it changes measured by computing the whole job that way. */
export interface Quicker {
  id: string;
  /** What is changed: “Plunge at 1500 mm/min in cut Words”. */
  text: string;
  /** What that does to depth and finish, in words; empty where nothing but time changes. */
  effect: string;
  minutesSaved: number;
  patch: Operation[];
}

interface Candidate {
  id: string;
  text: string;
  effect: string;
  cut?: string;
  /** The item of artwork whose outlines it draws anew. */
  item?: string;
  patch: Operation[];
}

/** Outlines are drawn anew within this, mm: half the width of a pencil line, seen by nobody. */
const REFIT_WITHIN = 0.05;

/** An outline with no more nodes than this is not worth drawing anew. */
const FEW_NODES = 40;

/** Less than this is not worth a change, minutes. */
const WORTH_IT = 2 / 60;

/** Lowest lift that clears a board which is not quite flat, mm (common practice: 1/4 in at most, over nothing). */
const LOWEST_LIFT = 2;

/**
 * Measures what would make a job quicker: each candidate is applied and the job computed; those that save time come
 * back, the most first.
 *
 * @param measure computes a changed job; undefined where that was given up.
 */
export async function measureQuicker<C extends BaseCut>(
  job: Job<C>,
  now: Outcome,
  measure: (job: Job<C>) => Promise<Outcome | undefined>,
  progress: (share: number) => void = () => {},
): Promise<Quicker[]> {
  const candidates = [
    ...liftOf(job),
    ...ordersOf(job, now),
    ...refitsOf(job, now),
    ...job.cuts.flatMap((cut, index) => ofCut(job, cut, index)),
  ];
  const found: Quicker[] = [];
  for (const [index, candidate] of candidates.entries()) {
    progress(index / candidates.length);
    const changed = jsonPatch.applyPatch(structuredClone(job), candidate.patch).newDocument;
    const then = await measure(changed);
    if (!then) return found;
    // What can no longer be cut is not quicker.
    const lost = job.cuts.some(({ id }) => now.depths[id] !== undefined && then.depths[id] === undefined);
    const minutesSaved = now.minutes - then.minutes;
    if (lost || minutesSaved < WORTH_IT) continue;
    const { id, text, patch } = candidate;
    found.push({ id, text, patch, minutesSaved, effect: effectOf(job, candidate, now, then) });
  }
  progress(1);
  return found.sort((a, b) => b.minutesSaved - a.minutesSaved);
}

/** A saving in words: “1 min 10 s sooner”. */
export function soonerWords({ minutesSaved }: Quicker): string {
  return `${formatMinutes(minutesSaved)} sooner`;
}

function effectOf({ unit }: Job, { cut, item, effect }: Candidate, now: Outcome, then: Outcome): string {
  if (item !== undefined) {
    const { drawn, now: left, off } = then.nodes[item];
    return `${drawn} nodes become ${left}, and no edge moves by more than ${formatLength(off, unit, 3)}`;
  }
  const change = cut === undefined ? 0 : (then.depths[cut] ?? 0) - (now.depths[cut] ?? 0);
  const depth =
    Math.abs(change) < 0.05 ? '' : `${formatLength(Math.abs(change), unit)} ${change < 0 ? 'less deep' : 'deeper'}`;
  return [depth, effect].filter(Boolean).join(', ');
}

function liftOf({ stock, unit }: Job): Candidate[] {
  if (stock.lift <= LOWEST_LIFT + 0.5) return [];
  return [
    {
      id: 'lift',
      text: `Lift ${formatLength(LOWEST_LIFT, unit)} between cuts instead of ${formatLength(stock.lift, unit)}`,
      effect: stock.keepOuts.length
        ? 'over or round clamps, screws and pins as before'
        : 'make sure that nothing stands higher',
      patch: [{ op: 'replace', path: '/stock/lift', value: LOWEST_LIFT }],
    },
  ];
}

function ordersOf(job: Job, now: Outcome): Candidate[] {
  const out: Candidate[] = [];
  if (job.ownOrder)
    out.push({
      id: 'order',
      text: 'Make the cuts in the usual order',
      effect: '',
      patch: [{ op: 'replace', path: '/ownOrder', value: false }],
    });
  const order = fewestChanges(job.cuts, now.bitChanges);
  if (order)
    out.push({
      id: 'fewer-changes',
      text: `Make the cuts in the order ${order.map((cut) => titleOf(cut, job)).join(', ')}`,
      effect: 'fewer bit changes; what is cut out still comes last',
      patch: [
        { op: 'replace', path: '/cuts', value: order },
        { op: 'replace', path: '/ownOrder', value: true },
      ],
    });
  return out;
}

function refitsOf({ artwork, cuts, unit }: Job, now: Outcome): Candidate[] {
  return artwork.flatMap((item, index): Candidate[] => {
    const used = cuts.some((cut) => cut.targets.some((target) => target.item === item.id));
    if (item.kind !== 'drawing' || !used || item.refit > 0 || !(now.nodes[item.id]?.drawn > FEW_NODES)) return [];
    return [
      {
        id: `refit-${item.id}`,
        item: item.id,
        text: `Refit the outlines of ${item.name} within ${formatLength(REFIT_WITHIN, unit, 3)}`,
        effect: '',
        patch: [{ op: 'replace', path: `/artwork/${index}/refit`, value: REFIT_WITHIN }],
      },
    ];
  });
}

/** What the cut’s own kind knows. */
function ofCut(job: Job, cut: BaseCut, index: number): Candidate[] {
  const bit = job.bits.find((b) => b.id === cut.bit);
  const tries = (bit && kindOf(cut).quicker?.(job, cut, bit, worksOn(cut, job))) ?? [];
  return tries.map(({ what, which, fields, text, effect }) => ({
    id: [what, cut.id, ...(which ? [which] : [])].join('-'),
    text,
    effect,
    cut: cut.id,
    patch: setCut(index, fields),
  }));
}
