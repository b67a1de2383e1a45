import { roundPlaces } from '../artwork/round-places.ts';
import type { Shape } from '../artwork/shape.ts';
import type { Bit } from '../document/bit.ts';
import { depthForRadius, presetFor, profileOf, radiusAtDepth } from '../bits/bit.ts';
import type { Carvables } from '../ways/carvable.ts';
import { CutProblem } from '../ways/cut-problem.ts';
import { drill, type Hole } from '../ways/drill.ts';
import { inlayFit } from './inlay/inlay-fit.ts';
import { pocket, type PocketSettings } from '../ways/pocket.ts';
import { profile, type ProfileSettings } from '../ways/profile.ts';
import type { Tab } from '../ways/tabs.ts';
import { vCarve, type VCarving } from './v-carve/v-carve.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import type { Path } from '../motion/path.ts';
import type { Dwells } from '../motion/plan.ts';
import { radians } from '../quantity/units.ts';
import { rankOf } from './rank.ts';
import { thickest } from '../stock/stock.ts';
import type { Cut, DrillCut, InlayCut, PocketCut, ProfileCut, VCarveCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';

/** What one bit does for a cut. */
export interface CutPart {
  /** The cut’s id, or that with a number behind it for bits that clear before its own. */
  id: string;
  /** The cut it belongs to. */
  cut: string;
  bit: string;
  rank: number;
  path: Path;
  feed: number;
  plunge: number;
  speed: number;
  passes: number;
  /** Of a bit that clears before a cut's own: its step and depth a pass, mm. */
  clearing?: { step: number; depthPerPass: number };
  tabs: Tab[];
  /** Only of V-carving: see `VCarving`. */
  carving?: Omit<VCarving, 'path'>;
  /** Of profiles: where each loop begins, on the sheet. */
  starts?: { x: number; y: number }[];
  /** Loops the bit does not fit into. */
  lost: number;
  /** Of pockets: what no bit reaches, mm², and its outlines on the sheet. */
  left: number;
  leftLoops?: Loops;
  /** Of profiles: loops without the lead asked for. */
  noLead: number;
  /** Of drilling. */
  holes?: Hole[];
  dwells?: Dwells;
  /** Of inlays: smallest and largest gap, mm a side. */
  gap?: { least: number; most: number };
  /** Of inlays: places where the two halves do not fit, as edges lie nearer to each other than the bit is wide. */
  pinched?: number;
}

/** What a cut works on, made when it is asked for. */
export interface CutArtwork {
  shapes: readonly Shape[];
  area(): { area: Loops; open: number };
  carvables(): Promise<Carvables>;
}

/**
 * The ordered paths of a cut, one for each bit it takes.
 * @throws with one sentence for what cannot be cut; see `cannotBeCut`.
 */
export async function partsOf(job: Job, cut: Cut, artwork: CutArtwork, clipper: Clipper): Promise<CutPart[]> {
  const bit = job.bits.find((b) => b.id === cut.bit);
  if (!bit) throw new CutProblem('This cut’s bit is no longer in the job; choose another.');
  if (cut.kind === 'v-carve') return carve(job, cut, bit, artwork, clipper);
  if (cut.kind === 'drill') return [drilled(job, cut, bit, artwork.shapes)];
  const { area, open } = artwork.area();
  if (area.length === 0) throw nothingToCut(open);
  if (cut.kind === 'profile') return [profiled(job, cut, bit, area, clipper)];
  if (cut.kind === 'pocket') return pocketed(job, cut, bit, area, clipper);
  return [inlaid(job, cut, bit, area, clipper)];
}

export function nothingToCut(open: number): CutProblem {
  return new CutProblem(
    open > 0
      ? 'All chosen outlines are open; close them to cut the area inside.'
      : 'No outlines are chosen for this cut; choose some on the sheet.',
  );
}

function part(cut: Cut, made: Pick<CutPart, 'path'> & Partial<CutPart>): CutPart {
  return {
    id: cut.id,
    cut: cut.id,
    bit: cut.bit,
    rank: rankOf(cut, false),
    feed: cut.feed,
    plunge: cut.plunge,
    speed: cut.speed,
    passes: 1,
    tabs: [],
    lost: 0,
    left: 0,
    noLead: 0,
    ...made,
  };
}

function endMill(bit: Bit, what: string): number {
  if (bit.kind !== 'end') throw new CutProblem(`${what} needs an end mill; choose one for this cut.`);
  return bit.diameter;
}

async function carve(job: Job, cut: VCarveCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): Promise<CutPart[]> {
  const shape = profileOf(bit);
  if (bit.kind !== 'v') throw new CutProblem('A V-carve needs a V-bit; choose one for this cut.');
  const carvables = await artwork.carvables();
  if (carvables.places.length === 0) throw nothingToCut(carvables.open);
  const { lift } = job.stock;
  const clearing = clearBitsOf(job, cut.clearBits, Infinity);
  const { path, ...carving } = vCarve(
    carvables,
    {
      bit: shape,
      depthLimit: cut.depthLimit,
      startDepth: cut.startDepth,
      depthPerPass: cut.depthPerPass ?? undefined,
      floorStep: cut.floorStep,
      clearedBy: clearing.map((b) => b.diameter / 2),
      feed: cut.feed,
      plunge: cut.plunge,
      lift,
      rapid: job.bench.limits.speed.z,
    },
    clipper,
  );
  if (path.feed.length === 0)
    throw new CutProblem('Every chosen outline is narrower than the tip of this bit; choose a bit with a finer tip.');
  const parts = [part(cut, { path, carving, passes: carving.passes })];
  if (clearing.length === 0) return parts;
  const { area } = artwork.area();
  // The floor is where the V-bit's own reach ends, which may be above the limit.
  const reach = radiusAtDepth(shape, cut.depthLimit - cut.startDepth);
  const floor = clipper.offset(area, -(reach - shape.flat));
  const depth = cut.startDepth + depthForRadius(shape, reach);
  return [...cleared(job, cut, clearing, floor, depth, cut.startDepth, clipper), ...parts];
}

/** The bits that clear before a cut’s own, largest first, as the cut names them. */
function clearBitsOf(job: Job, ids: readonly string[], under: number): Bit[] {
  const bits = ids.map((id) => {
    const bit = job.bits.find((b) => b.id === id);
    if (!bit) throw new CutProblem('A bit that should clear first is no longer in the job; choose another.');
    endMill(bit, 'Clearing');
    return bit;
  });
  const largest = [...bits].sort((a, b) => b.diameter - a.diameter);
  if (largest.some((bit) => bit.diameter <= under && under < Infinity))
    throw new CutProblem(
      'A bit that clears first must be larger than the cut’s own; take it out or choose a larger one.',
    );
  return largest;
}

/** Clears an area with some bits, each cutting only what those before it could not reach. */
function cleared(
  job: Job,
  cut: VCarveCut | PocketCut,
  bits: readonly Bit[],
  area: Loops,
  depth: number,
  startDepth: number,
  clipper: Clipper,
): CutPart[] {
  const parts: CutPart[] = [];
  const radii: number[] = [];
  for (const [index, bit] of bits.entries()) {
    if (clipper.offset(area, -bit.diameter / 2).length === 0) continue;
    const preset = presetFor(bit, job.stock.material);
    const drive = { feed: preset?.feed ?? cut.feed, plunge: preset?.plunge ?? cut.plunge };
    const own = cut.kind === 'pocket' ? cut : undefined;
    const clearing = {
      step: own ? Math.min(bit.diameter, (own.step / (bitDiameter(job, own) || 1)) * bit.diameter) : bit.diameter * 0.4,
      depthPerPass: preset?.depthPerPass ?? Math.min(cut.depthPerPass ?? Infinity, bit.diameter),
    };
    const made = pocket(
      area,
      {
        ...drive,
        lift: job.stock.lift,
        diameter: bit.diameter,
        depth,
        startDepth,
        ...clearing,
        pattern: own?.pattern ?? 'rings',
        angle: radians(own?.angle ?? 0),
        climb: own?.climb ?? true,
        slots: own?.slots ?? false,
        limits: job.bench.limits,
        finish: own?.finish ?? 0,
        leave: true,
        entry: own ? { kind: own.entry.kind, angle: radians(own.entry.angle) } : { kind: 'ramp', angle: radians(5) },
        clearedBy: radii.slice(),
      },
      clipper,
    );
    radii.push(bit.diameter / 2);
    if (made.path.feed.length === 0) continue;
    parts.push(
      part(cut, {
        ...drive,
        id: `${cut.id}.${index + 1}`,
        bit: bit.id,
        rank: rankOf(cut, true) + index / 100,
        speed: preset?.speed ?? cut.speed,
        path: made.path,
        passes: made.passes,
        clearing,
      }),
    );
  }
  return parts;
}

function bitDiameter(job: Job, cut: Cut): number {
  return job.bits.find((bit) => bit.id === cut.bit)?.diameter ?? 0;
}

function pocketed(job: Job, cut: PocketCut, bit: Bit, area: Loops, clipper: Clipper): CutPart[] {
  const diameter = endMill(bit, 'A pocket');
  const clearing = clearBitsOf(job, cut.clearBits, diameter);
  const before = cleared(job, cut, clearing, area, cut.depth, cut.startDepth, clipper);
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
  return [...before, part(cut, { path, left, leftLoops, passes })];
}

function profiled(job: Job, cut: ProfileCut, bit: Bit, area: Loops, clipper: Clipper): CutPart {
  const settings: ProfileSettings = {
    feed: cut.feed,
    plunge: cut.plunge,
    lift: job.stock.lift,
    diameter: endMill(bit, 'Cutting out'),
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
  return part(cut, profile(area, settings, clipper));
}

function inlaid(job: Job, cut: InlayCut, bit: Bit, area: Loops, clipper: Clipper): CutPart {
  const diameter = endMill(bit, 'An inlay');
  const fit = inlayFit(area, Math.max(diameter, cut.otherDiameter) / 2, cut.allowance, clipper);
  const drive = { feed: cut.feed, plunge: cut.plunge, lift: job.stock.lift, diameter };
  if (cut.role === 'recess') {
    const { path, left, passes } = pocket(
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
    return part(cut, { path, left, passes, gap: fit.gap, pinched: fit.pinched });
  }
  const laid = fit.part.map((loop) => loop.map((v, i) => v + (i % 2 ? cut.shift.y : cut.shift.x)));
  const made = profile(
    laid,
    {
      ...drive,
      side: 'outside',
      depth: cut.depth,
      depthPerPass: cut.depthPerPass,
      lastPass: cut.lastPass,
      climb: cut.climb,
      tabs: cut.tabs,
      ramp: cut.entry.kind === 'plunge' ? 0 : radians(cut.entry.angle),
      thickness: cut.depth,
    },
    clipper,
  );
  return part(cut, { ...made, gap: fit.gap, pinched: fit.pinched });
}

function drilled(job: Job, cut: DrillCut, bit: Bit, shapes: readonly Shape[]): CutPart {
  if (bit.kind === 'v') throw new CutProblem('Drilling needs a drill or an end mill; choose one for this cut.');
  const { places, others } = roundPlaces(shapes);
  if (places.length === 0)
    throw new CutProblem(
      shapes.length === 0
        ? 'No circles are chosen for this cut; choose some on the sheet.'
        : 'None of the chosen outlines is a circle or a point; holes are drilled at the centres of circles.',
    );
  const { path, holes, dwells } = drill(places, { ...cut, lift: job.stock.lift });
  return part(cut, {
    path,
    holes,
    dwells: dwells.length > 0 ? { points: dwells, seconds: cut.dwell } : undefined,
    lost: others,
  });
}
