import { placeItem, type PlacedItem, type Resources } from '../artwork/place.ts';
import type { Shape } from '../artwork/svg.ts';
import { profileOf, type Bit, type Profile } from '../bits/bit.ts';
import { CutProblem } from '../cuts/cut-problem.ts';
import { profile } from '../cuts/profile.ts';
import type { Tab } from '../cuts/tabs.ts';
import { type VCarving, vCarve } from '../cuts/v-carve.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { medialAxis, type MedialAxis } from '../geometry/medial-axis.ts';
import { TriangulationError } from '../geometry/outline-samples.ts';
import { regionsOf, type Region } from '../geometry/regions.ts';
import { measurePath, type Path } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { splitTime } from '../motion/split-time.ts';
import { judge, type Remark } from '../remarks/judge.ts';
import { orderCuts } from '../sequence/order.ts';
import { thickest } from '../stock/stock.ts';
import type { Cut, Job, ProfileCut, VCarveCut } from './job.ts';

export interface CutResult {
  id: string;
  /** What keeps it from being cut, as a sentence; the path is then empty. */
  problem?: string;
  path: Path;
  profile: Profile;
  minutes: number;
  split: { cutting: number; plunging: number; linking: number };
  /** Deepest point below the top of the stock, mm. */
  depth: number;
  cutLength: number;
  linkLength: number;
  /** Outlines of the chosen shapes that are not closed, and so are left out. */
  openOutlines: number;
  tabs: Tab[];
  passes: number;
  /** Only of V-carving: see `VCarving`. */
  carving?: Omit<VCarving, 'path'>;
  /** Only of profiles: loops the bit does not fit into. */
  lost: number;
}

export interface JobResult {
  items: PlacedItem[];
  /** In the order they will be cut. */
  cuts: CutResult[];
  /** With bit changes, minutes. */
  minutes: number;
  bitChanges: number;
  remarks: Remark[];
}

export interface ComputeOptions {
  cache?: ComputeCache;
  signal?: AbortSignal;
  /** Called with how much is done, 0 to 1, and what is being worked on. */
  progress?: (share: number, doing: string) => void;
}

interface Carvable {
  region: Region;
  axis: MedialAxis;
}

/** Keeps what `compute` found for parts of a job, so that only what changed is computed again. */
export class ComputeCache {
  readonly items = new Recent<PlacedItem>(200);
  readonly areas = new Recent<{ area: Loops; open: number }>(40);
  readonly axes = new Recent<Carvable[]>(20);
  readonly cuts = new Recent<CutResult>(60);
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
  { cache = new ComputeCache(), signal, progress }: ComputeOptions = {},
): Promise<JobResult> {
  const items = job.artwork.map((item) => {
    const key = JSON.stringify(item);
    return cache.items.get(key) ?? cache.items.set(key, placeItem(item, resources));
  });
  const ordered = orderCuts(job.cuts);
  const cuts: CutResult[] = [];
  for (const [index, cut] of ordered.entries()) {
    const report = (share: number) => progress?.((index + share) / ordered.length, titleOf(cut, job));
    report(0);
    await breathe(signal);
    const key = JSON.stringify([cut, bitOf(job, cut), artworkOf(job, cut), machineOf(job)]);
    cuts.push(
      cache.cuts.get(key) ?? cache.cuts.set(key, await computeCut(job, cut, items, clipper, cache, report, signal)),
    );
  }
  progress?.(1, '');
  let bitChanges = 0;
  for (let i = 1; i < ordered.length; i++) if (ordered[i].bit !== ordered[i - 1].bit) bitChanges++;
  const minutes = cuts.reduce((sum, cut) => sum + cut.minutes, 0) + bitChanges * job.bench.bitChangeMinutes;
  const tryCut = (cut: Cut) => computeCut(job, cut, items, clipper, cache, () => {}, signal);
  const remarks = await judge({ job, items, cuts, tryCut });
  return { items, cuts, minutes, bitChanges, remarks };
}

/** Lets other work run, and stops where the signal says so. */
async function breathe(signal?: AbortSignal): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, 0));
  signal?.throwIfAborted();
}

function bitOf(job: Job, cut: Cut): Bit | undefined {
  return job.bits.find((bit) => bit.id === cut.bit);
}

function artworkOf(job: Job, cut: Cut): unknown {
  return cut.targets.map((target) => job.artwork.find((item) => item.id === target.item));
}

function machineOf({ stock, bench }: Job): unknown {
  return [stock.corners, stock.lift, bench.limits];
}

/** What a cut is called: `titleOf(cut, job)` is “Carve Words” or “Cut out Board edge”. */
export function titleOf(cut: Cut, job: Job): string {
  const names = cut.targets.map(({ item }) => job.artwork.find((a) => a.id === item)?.name ?? '?');
  return `${cut.kind === 'v-carve' ? 'Carve' : 'Cut out'} ${names.length ? names.join(' and ') : 'nothing yet'}`;
}

/** The shapes a cut works on. */
export function shapesOf(cut: Pick<Cut, 'targets'>, items: readonly PlacedItem[]): Shape[] {
  return cut.targets.flatMap((target) => {
    const shapes = items.find((item) => item.id === target.item)?.shapes ?? [];
    const chosen = target.shapes;
    return chosen === 'all' ? shapes : shapes.filter((_, index) => chosen.includes(index));
  });
}

async function computeCut(
  job: Job,
  cut: Cut,
  items: readonly PlacedItem[],
  clipper: Clipper,
  cache: ComputeCache,
  report: (share: number) => void,
  signal?: AbortSignal,
): Promise<CutResult> {
  const bit = bitOf(job, cut);
  const empty: CutResult = {
    id: cut.id,
    path: { xyz: new Float64Array(0), feed: new Float64Array(0) },
    profile: { flat: 0, slope: 1, radius: 1 },
    minutes: 0,
    split: { cutting: 0, plunging: 0, linking: 0 },
    depth: 0,
    cutLength: 0,
    linkLength: 0,
    openOutlines: 0,
    tabs: [],
    passes: 0,
    lost: 0,
  };
  try {
    if (!bit) throw new CutProblem('This cut’s bit is no longer in the job; choose another.');
    const shape = profileOf(bit);
    const areaKey = JSON.stringify([cut.targets, artworkOf(job, cut)]);
    const { area, open } = cache.areas.get(areaKey) ?? cache.areas.set(areaKey, areaOf(shapesOf(cut, items), clipper));
    empty.openOutlines = open;
    if (area.length === 0)
      throw new CutProblem(
        open > 0
          ? 'All chosen outlines are open; close them to cut the area inside.'
          : 'No outlines are chosen for this cut; choose some on the sheet.',
      );
    const parts =
      cut.kind === 'v-carve'
        ? await carve(cut, shape, job, area, areaKey, clipper, cache, report, signal)
        : cutProfile(cut, bit, job, area, clipper);
    const plan = planMotion(parts.path, job.bench.limits);
    const { cut: cutLength, link, lowest } = measurePath(parts.path);
    return {
      ...empty,
      ...parts,
      profile: shape,
      minutes: plan.minutes,
      split: splitTime(parts.path, plan),
      depth: -lowest,
      cutLength,
      linkLength: link,
      openOutlines: open,
    };
  } catch (error) {
    if (error instanceof CutProblem || error instanceof TriangulationError || error instanceof RangeError)
      return { ...empty, problem: error.message };
    throw error;
  }
}

function areaOf(shapes: readonly Shape[], clipper: Clipper): { area: Loops; open: number } {
  let open = 0;
  const loops: Loops = [];
  for (const shape of shapes) {
    const closed: Loops = [];
    for (const outline of shape.outlines) {
      if (outline.closed) closed.push(outline.points);
      else open++;
    }
    if (closed.length) loops.push(...clipper.union(closed, shape.rule));
  }
  return { area: loops.length ? clipper.union(loops, 'nonzero') : [], open };
}

async function carve(
  cut: VCarveCut,
  bit: Profile,
  job: Job,
  area: Loops,
  areaKey: string,
  clipper: Clipper,
  cache: ComputeCache,
  report: (share: number) => void,
  signal?: AbortSignal,
): Promise<Pick<CutResult, 'path' | 'carving' | 'passes'>> {
  let axes = cache.axes.get(areaKey);
  if (!axes) {
    axes = [];
    const regions = regionsOf(area);
    for (const [index, region] of regions.entries()) {
      axes.push({ region, axis: medialAxis(region) });
      report((0.8 * (index + 1)) / regions.length);
      await breathe(signal);
    }
    cache.axes.set(areaKey, axes);
  }
  const { path, ...carving } = vCarve(
    axes,
    {
      bit,
      depthLimit: cut.depthLimit,
      floorStep: cut.floorStep,
      feed: cut.feed,
      plunge: cut.plunge,
      lift: job.stock.lift,
      rapid: job.bench.limits.speed.z,
    },
    clipper,
  );
  if (path.feed.length === 0)
    throw new CutProblem('Every chosen outline is narrower than the tip of this bit; choose a bit with a finer tip.');
  return { path, carving, passes: 1 };
}

function cutProfile(
  cut: ProfileCut,
  bit: Bit,
  job: Job,
  area: Loops,
  clipper: Clipper,
): Pick<CutResult, 'path' | 'tabs' | 'lost' | 'passes'> {
  if (bit.kind !== 'end') throw new CutProblem('Cutting out needs an end mill; choose one for this cut.');
  const made = profile(
    area,
    {
      diameter: bit.diameter,
      side: cut.side,
      depth: cut.depth,
      depthPerPass: cut.depthPerPass,
      climb: cut.climb,
      tabs: cut.tabs,
      thickness: thickest(job.stock),
      feed: cut.feed,
      plunge: cut.plunge,
      lift: job.stock.lift,
    },
    clipper,
  );
  return { ...made, passes: Math.ceil(cut.depth / cut.depthPerPass - 1e-9) };
}
