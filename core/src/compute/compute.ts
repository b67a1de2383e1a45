import { pathAlong } from '../motion/path.ts';
import { CannotBeCut } from '../schema/cannot-be-cut.ts';
import { OwnFault } from '../schema/own-fault.ts';
import { placeItem, type PlacedItem, type Resources } from '../artwork/place.ts';
import type { Shape } from '../artwork/shape.ts';
import { areaOf, type DrawnArea } from '../artwork/united-shapes.ts';
import type { BaseTool } from '../document/tool.ts';
import { type Carvable, type Carvables, carvablesOf } from '../ways/carvable.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { type BesideCut, betweenCuts } from '../program/between-cuts.ts';
import { machineKindOf } from '../machines/kinds.ts';
import { judge } from '../remarks/judge.ts';
import { type Left, sortLeft } from '../cuts/left-on-purpose.ts';
import type { Remark } from '../cuts/remark.ts';
import { orderParts } from '../sequence/order.ts';
import { overEarlier } from '../sequence/over-earlier.ts';
import type { SheetMark } from '../cuts/kind.ts';
import { kindOf } from '../cuts/kinds.ts';
import { approachOver } from '../program/approach.ts';
import { cutArtwork } from '../cuts/cut-artwork.ts';
import { obstaclesOf } from '../stock/obstacles.ts';
import { partsOf } from '../cuts/parts-of.ts';
import { type BitTime, bitTimes, type CutResult, timedCut, type UntimedPart } from '../sequence/cut-result.ts';
import { chosenOf } from '../document/targets.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import { titleOf, worksOn } from '../cuts/title.ts';

export interface JobResult {
  items: PlacedItem[];
  /** In the order they will be cut. */
  cuts: CutResult[];
  /** In the order they first come in. */
  bits: BitTime[];
  /** With what is spent between the cuts and with bit changes, minutes. */
  minutes: number;
  /** Beside each cut, in their order: spindle starts, and ways from cut to cut and back. */
  beside: BesideCut[];
  bitChanges: number;
  /** Those that stand, and those that were left on purpose. */
  remarks: Remark[];
  left: Left[];
}

export interface ComputeOptions {
  cache?: ComputeCache;
  signal?: AbortSignal;
  /** Without remarks, where only times are asked for. */
  unjudged?: boolean;
  /** Called when the paths of a cut are laid and ordered, before their moves are timed. */
  laid?: () => void;
  /** Called with the artwork as it lies on the sheet, before any cut is worked out. */
  placed?: (items: readonly PlacedItem[]) => void;
  /** Called with what a cut marks on the sheet, as soon as that is known and before its path is. */
  early?: (cut: BaseCut, marks: readonly SheetMark[]) => void;
  /** Called with how much is done, 0 to 1, and what is being worked on. */
  progress?: (share: number, doing: string) => void;
}

/** Keeps what `compute` found for parts of a job, so that only what changed is computed again. */
export class ComputeCache {
  readonly items = new Recent<PlacedItem>(400);
  readonly areas = new Recent<DrawnArea>(80);
  readonly carvables = new Recent<Carvables>(60);
  readonly pieces = new Recent<Carvable[]>(1500);
  /** Before their links are led clear of clamps, so that moving one computes no cut again. */
  readonly parts = new Recent<UntimedPart[]>(120);
  readonly cuts = new Recent<CutResult[]>(120);
}

class Recent<T> {
  private readonly kept = new Map<string, T>();
  constructor(private readonly most: number) {}
  get(key: string): T | undefined {
    const value = this.kept.get(key);
    if (value !== undefined) {
      this.kept.delete(key);
      this.kept.set(key, value);
    }
    return value;
  }
  set(key: string, value: T): T {
    this.kept.set(key, value);
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!);
    return value;
  }
}

/**
 * Computes a job: its artwork on the sheet, every cut's path, times and remarks. The same job gives the same result.
 *
 * @throws {DOMException} AbortError when the signal says so; nothing is kept from a cut that was not finished.
 */
export async function compute(
  job: Job,
  resources: Resources,
  clipper: Clipper,
  { cache = new ComputeCache(), signal, unjudged, placed, laid, early, progress }: ComputeOptions = {},
): Promise<JobResult> {
  const items = job.artwork.map((item) => {
    const key = JSON.stringify(item);
    return cache.items.get(key) ?? cache.items.set(key, placeItem(item, resources));
  });
  placed?.(items);
  const resultOf = async (cut: BaseCut, report: (share: number) => void) => {
    const key = JSON.stringify([cut, bitsOf(job, cut), artworkOf(job, cut), restOf(job)]);
    const held = `${key} ${JSON.stringify([obstaclesOf(job), job.stock.length, job.stock.width])}`;
    const known = cache.cuts.get(held);
    if (known) return known;
    const parts =
      cache.parts.get(key) ??
      cache.parts.set(key, await computeCut(job, cut, items, clipper, cache, { report, early, signal }));
    laid?.();
    return cache.cuts.set(
      held,
      parts.map((part) => timedCut(part, job, machineKindOf(job.bench).dialect(job.bench).post)),
    );
  };
  const cuts: CutResult[] = [];
  /** One for each cut, and one for what is remarked. */
  const works = job.cuts.length + 1;
  for (const [index, cut] of job.cuts.entries()) {
    const report = (share: number) => progress?.((index + share) / works, titleOf(cut, job));
    report(0);
    // A timer costs a browser some milliseconds: many cuts that are known already are gone over without.
    await pause(signal);
    cuts.push(...(await resultOf(cut, report)));
  }
  const { post } = machineKindOf(job.bench).dialect(job.bench);
  const ordered = overEarlier(job.ownOrder ? cuts : orderParts(cuts), job.bench, post);
  progress?.(job.cuts.length / works, 'Remarks');
  let bitChanges = 0;
  for (let i = 1; i < ordered.length; i++) if (ordered[i].bit !== ordered[i - 1].bit) bitChanges++;
  const beside = besideCuts(job, ordered);
  const minutes =
    ordered.reduce((sum, cut, k) => sum + beside[k].before + cut.minutes + beside[k].after, 0) +
    bitChanges * job.bench.bitChangeMinutes;
  // Kept as well: a remedy tried once is not computed again because another cut has changed.
  const tryCut = (cut: BaseCut) => resultOf(cut, () => {});
  const judged = sortLeft(job, unjudged ? [] : await judge({ job, items, cuts: ordered, tryCut }));
  progress?.(1, '');
  return { items, cuts: ordered, bits: bitTimes(ordered), minutes, beside, bitChanges, ...judged };
}

/** What the job’s programs spend beside each of its cuts; nothing beside those that cannot be made. */
function besideCuts(job: Job, cuts: readonly CutResult[]): BesideCut[] {
  const made = cuts.filter(({ path }) => path.feed.length > 0);
  const approach = approachOver(job, made);
  const { bench } = job;
  const found = betweenCuts(made, approach, machineKindOf(bench).dialect(bench), bench.limits);
  return cuts.map((cut) => found[made.indexOf(cut)] ?? { before: 0, after: 0 });
}

/** Lets other work run, and stops where the signal says so. */
async function breathe(signal?: AbortSignal): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, 0));
  signal?.throwIfAborted();
}

let lastBreath = 0;

/** As `breathe`, but only when others have waited a while: a timer costs more than a letter. */
async function pause(signal?: AbortSignal): Promise<void> {
  const now = performance.now();
  if (now - lastBreath < 20) return signal?.throwIfAborted();
  await breathe(signal);
  lastBreath = performance.now();
}

function bitsOf(job: Job, cut: BaseCut): (BaseTool | undefined)[] {
  const ids = [...(kindOf(cut).clearBits?.(cut) ?? []), cut.bit];
  return ids.map((id) => job.bits.find((bit) => bit.id === id));
}

function artworkOf(job: Job, cut: BaseCut): unknown {
  return cut.targets.map((target) => job.artwork.find((item) => item.id === target.item));
}

/** What else of a job a cut may rest on, the unit of its sentences as well; what lies on the stock is looked at later. */
function restOf(job: Job): unknown {
  const not = { name: 0, notes: 0, left: 0, ownOrder: 0, artwork: 0, bits: 0, cuts: 0 };
  return { ...job, ...not, stock: { ...job.stock, keepOuts: 0, zeroXY: 0, before: 0, after: 0 } };
}

/** The shapes a cut works on. */
export function shapesOf(cut: Pick<BaseCut, 'targets'>, items: readonly PlacedItem[]): Shape[] {
  return cut.targets.flatMap((target) => {
    const shapes = items.find((item) => item.id === target.item)?.shapes ?? [];
    const { numbers } = chosenOf([target], target.item, shapes);
    return shapes.filter((_, index) => numbers.has(index));
  });
}

/** How much of a cut's time its axes take, about. */
const AXES = 0.5;

async function computeCut(
  job: Job,
  cut: BaseCut,
  items: readonly PlacedItem[],
  clipper: Clipper,
  cache: ComputeCache,
  { report, early, signal }: Pick<ComputeOptions, 'early' | 'signal'> & { report: (share: number) => void },
): Promise<UntimedPart[]> {
  const shapes = shapesOf(cut, items);
  const key = JSON.stringify([cut.targets, artworkOf(job, cut)]);
  const works = worksOn(cut, job, items);
  const openOutlines = shapes.reduce((sum, shape) => sum + shape.outlines.filter((o) => !o.closed).length, 0);
  try {
    const parts = await partsOf(
      job,
      cut,
      {
        ...cutArtwork(shapes, clipper),
        area: () => cache.areas.get(key) ?? cache.areas.set(key, areaOf(shapes, clipper)),
        carvables: async () =>
          cache.carvables.get(key) ??
          cache.carvables.set(
            key,
            await carvablesOf(
              shapes,
              clipper,
              async (share) => {
                report(AXES * share);
                await pause(signal);
              },
              cache.pieces,
            ),
          ),
        show(facts) {
          early?.(cut, kindOf(cut).marks?.({ facts } as never) ?? []);
        },
        async step(share) {
          report(AXES + (0.95 - AXES) * share);
          await pause(signal);
        },
      },
      clipper,
    );
    return parts.map((part) => ({ ...part, openOutlines, works }));
  } catch (error) {
    if (!(error instanceof CannotBeCut)) throw error;
    return [
      {
        ...NOTHING,
        id: cut.id,
        cut: cut.id,
        bit: cut.bit,
        rank: kindOf(cut).rank(cut),
        openOutlines,
        works,
        problem: error.message,
        ...(error instanceof OwnFault && { ownFault: true as const }),
      },
    ];
  }
}

const NOTHING = {
  path: pathAlong(new Float64Array(0)),
  feed: 0,
  plunge: 0,
  speed: 0,
  passes: 0,
  slope: 0,
  tabs: [],
  tabsMissing: 0,
  facts: null,
};
