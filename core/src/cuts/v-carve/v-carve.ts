import { narrowPlaces } from './narrow-places.ts';
import { depthForRadius, radiusAtDepth, type Profile } from '../../tools/turned.ts';
import { Clearance } from '../../geometry/clearance.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import type { MedialAxis } from '../../geometry/medial-axis.ts';
import { signedArea } from '../../geometry/outline.ts';
import { joinPaths, type Path } from '../../motion/path.ts';
import { checkMoves } from '../../motion/too-many-moves.ts';
import { shiftTrack, type Track } from '../../motion/track.ts';
import { grooveRoute } from '../../ways/groove-route.ts';
import type { Carvable, Carvables } from '../../ways/carvable.ts';
import { checkCarved } from '../../ways/checked.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { eroded } from '../../ways/erosion.ts';
import { floorTracks } from '../../ways/floor.ts';
import { layTracks } from '../../ways/lay-tracks.ts';
import { MOST_PASSES } from '../../ways/pass-depths.ts';
import { PLUNGE_CLEARANCE } from '../../ways/plunge-clearance.ts';

export interface VCarveSettings {
  bit: Profile;
  /** Deepest the tip may go, mm below the top of the stock. */
  depthLimit: number;
  /** Depth at which carving starts, mm: as if the stock's top lay so much lower. */
  startDepth?: number;
  /** Most that is taken at once, mm; without it all is carved in one go. */
  depthPerPass?: number;
  /** Distance between neighbouring rings on a flat floor, mm. */
  floorStep: number;
  /** Radii of end mills that have cleared the floor before, mm; only what they leave is cleared here. */
  clearedBy?: readonly number[];
  feed: number;
  plunge: number;
  /** Height of the bit between cuts, mm above the stock. */
  lift: number;
  /** Speed of a lift, mm/min; decides whether lifting or going back through the groove is quicker. */
  rapid: number;
}

export interface VCarving {
  path: Path;
  /** Length of axis whose shape is narrower than the bit's flat tip, mm; nothing is cut there. */
  tooNarrow: number;
  /** Where that is: x, y of both ends of every such stretch of axis, on the sheet, mm. */
  narrow: Float64Array;
  /** Area left flat by the depth limit, mm². */
  floorArea: number;
  /** Depth that would carve the widest place to a point, mm. */
  fullDepth: number;
  lifts: number;
  passes: number;
}

/** Depths are rounded to this, mm, towards shallow, so that rounding never cuts past the line. */
const DEPTH_GRAIN = 0.001;

/** Ways that would nowhere be deeper than this, mm, are left out: half of what depths are held to. */
const SCRATCH = 0.005;

/** Time a lift costs beside its moves, minutes: speeding up and slowing down four times. */
const LIFT_OVERHEAD = 0.3 / 60;

/**
 * V-carve: along the medial axis at the depth where the bit just touches both walls, d = (r − t)/tan α, and on a flat
 * floor where the depth limit stops it.
 *
 * @param carvables from `carvablesOf`; they depend on the outlines only, so callers keep them while settings change, and
 *   a region that is carved as before is not worked out again.
 * @param step told after each region how much is done, 0 to 1; may be asynchronous to let others work.
 * @throws {CutProblem} for settings that cannot be cut.
 */
export async function vCarve(
  { regions, places }: Carvables,
  settings: VCarveSettings,
  clipper: Clipper,
  step: (share: number) => Promise<void> | void = () => {},
): Promise<VCarving> {
  const { bit, depthLimit, floorStep, startDepth = 0, depthPerPass = Infinity } = settings;
  if (bit.slope <= 0) throw new CutProblem('A V-carve needs a V-bit; choose one for this cut.');
  if (!(depthLimit > startDepth))
    throw new CutProblem(
      startDepth > 0
        ? 'The depth limit is not below the start depth, so nothing would be carved; make the limit deeper.'
        : 'The depth limit is 0, so nothing would be carved; give it a depth.',
    );
  if (!(floorStep > 0))
    throw new CutProblem('The floor step is 0, so the floor would never be finished; 0.5 mm is usual.');
  if (!(depthPerPass > 0)) throw new CutProblem('The depth per pass is 0; give it a depth above 0.');
  const reach = radiusAtDepth(bit, depthLimit - startDepth);
  let widest = 0;
  for (const { region } of places) for (const r of regions[region].axis.r) if (r > widest) widest = r;
  const deepest = Math.min(depthForRadius(bit, reach), depthForRadius(bit, widest));
  const passes = Math.max(1, Math.ceil(deepest / depthPerPass - 1e-9));
  if (passes > MOST_PASSES)
    throw new CutProblem(
      `The depth per pass is so small that the carving would take ${passes < 1e9 ? passes.toLocaleString('en') : 'countless'} passes; make it larger.`,
    );
  const nodes = places.reduce((sum, { region }) => sum + regions[region].axis.x.length, 0);
  checkMoves((nodes * passes) / 4, 'depth per pass');
  const tracks: Track[][] = [];
  let tooNarrow = 0;
  const narrow: number[] = [];
  let floorArea = 0;
  const carved: CarvedRegion[] = [];
  for (const carvable of regions) {
    carved.push(keptRegion(carvable, { settings, reach, deepest, passes }, clipper));
    await step(carved.length / regions.length);
  }
  for (let pass = 0; pass < passes; pass++) {
    tracks.push([]);
    for (const { region, dx, dy } of places)
      for (const track of carved[region].tracks[pass]) tracks[pass].push(shiftTrack(track, dx, dy));
  }
  for (const { region, dx, dy } of places) {
    const { floorArea: flat, narrow: lines } = carved[region];
    floorArea += flat;
    for (let i = 0; i < lines.length; i += 4) {
      tooNarrow += Math.hypot(lines[i] - lines[i + 2], lines[i + 1] - lines[i + 3]);
      narrow.push(lines[i] + dx, lines[i + 1] + dy, lines[i + 2] + dx, lines[i + 3] + dy);
    }
  }
  const { path, lifts } = layPasses(tracks, settings);
  return {
    path,
    tooNarrow,
    narrow: Float64Array.from(narrow),
    floorArea,
    fullDepth: startDepth + depthForRadius(bit, widest),
    lifts,
    passes,
  };
}

function layPasses(passes: readonly Track[][], settings: VCarveSettings): { path: Path; lifts: number } {
  const laid = passes.filter((tracks) => tracks.length > 0).map((tracks) => layTracks(tracks, settings));
  return {
    path: joinPaths(laid.map(({ path }) => path)),
    lifts: laid.reduce((sum, { lifts }) => sum + lifts, Math.max(0, laid.length - 1)),
  };
}

interface CarvedRegion {
  /** Tracks of each pass. */
  tracks: Track[][];
  narrow: number[];
  floorArea: number;
}

/** Regions that were carved before, by how; as long as somebody holds on to their axes. */
const kept = new WeakMap<Carvable, Map<string, CarvedRegion>>();

/** Ways in which one region is kept carved. */
const MOST_KEPT = 3;

/** How every region of a carving is carved: the bit’s half-width at the limit, and the deepest place of all, mm. */
interface HowCarved {
  settings: VCarveSettings;
  reach: number;
  deepest: number;
  passes: number;
}

function keptRegion(carvable: Carvable, how: HowCarved, clipper: Clipper): CarvedRegion {
  const ways = kept.get(carvable) ?? new Map<string, CarvedRegion>();
  kept.set(carvable, ways);
  const key = JSON.stringify(how);
  const known = ways.get(key);
  if (known) return known;
  const carved = carveRegion(carvable, how, clipper);
  ways.set(key, carved);
  if (ways.size > MOST_KEPT) ways.delete(ways.keys().next().value!);
  return carved;
}

function carveRegion(
  carvable: Carvable,
  { settings, reach, deepest, passes }: HowCarved,
  clipper: Clipper,
): CarvedRegion {
  const { axis } = carvable;
  const { bit, startDepth = 0, feed, plunge, lift, rapid } = settings;
  const out: CarvedRegion = { tracks: [], narrow: narrowPlaces(axis, bit.flat), floorArea: 0 };
  // Below 0 where the shape is narrower than the flat tip: the bit turns back where it would leave the stock.
  const depth = new Float64Array(axis.r.length);
  let own = 0;
  for (let i = 0; i < depth.length; i++) {
    depth[i] = Math.floor((axis.r[i] - bit.flat) / bit.slope / DEPTH_GRAIN + 1e-6) * DEPTH_GRAIN;
    own = Math.max(own, Math.min(depth[i], deepest));
  }
  const liftCost = feed * ((2 * (lift + own / 2)) / rapid + (own / 2 + PLUNGE_CLEARANCE) / plunge + LIFT_OVERHEAD);
  // What a limit takes from the depth by rounding leaves no floor.
  const rounding = DEPTH_GRAIN * bit.slope + 1e-6;
  const wide = axis.r.some((r) => r > reach + rounding);
  const floor = wide ? eroded(carvable, reach, clipper) : [];
  for (const loop of floor) out.floorArea += signedArea(loop);
  // Walls and floor are looked at against the outline itself.
  const outline = axis.parted ? Clearance.ofLoops(carvable.region.loops) : axis.clearance;
  for (let pass = 1; pass <= passes; pass++) {
    const above = (deepest * (pass - 1)) / passes;
    const limit = Math.floor((deepest * pass) / passes / DEPTH_GRAIN + 1e-6) * DEPTH_GRAIN;
    const graph = between(axis, depth, above, limit);
    const length = new Float64Array(graph.edges.length / 2);
    for (let e = 0; e < length.length; e++) {
      const a = graph.edges[2 * e];
      const b = graph.edges[2 * e + 1];
      const dx = graph.x[a] - graph.x[b];
      const dy = graph.y[a] - graph.y[b];
      const dz = graph.depth[a] - graph.depth[b];
      length[e] = Math.sqrt(dx * dx + dy * dy + dz * dz);
    }
    const walks = grooveRoute(graph.x.length, graph.edges, length, liftCost);
    const tracks = walks
      .filter((walk) => walk.some((n) => graph.depth[n] > above + SCRATCH))
      .map((walk): Track => {
        const xyz = new Float64Array(3 * walk.length);
        for (let i = 0; i < walk.length; i++) {
          xyz[3 * i] = graph.x[walk[i]];
          xyz[3 * i + 1] = graph.y[walk[i]];
          xyz[3 * i + 2] = -startDepth - graph.depth[walk[i]];
        }
        return { xyz, closed: walk.length > 2 && walk[0] === walk[walk.length - 1], ring: 0, oneWay: false };
      });
    // Where the limit of this pass leaves a floor, its walls and the floor itself are cut at that depth.
    const passReach = radiusAtDepth(bit, limit);
    if (axis.r.some((r) => r > passReach + rounding)) {
      const area = passReach === reach ? floor : eroded(carvable, passReach, clipper);
      tracks.push(...floorTracks(carvable, area, settings, clipper, passReach, -startDepth - limit));
    }
    checkCarved(tracks, outline, bit, -startDepth, carvable.region.loops);
    out.tracks.push(tracks);
  }
  return out;
}

interface DepthGraph {
  x: Float64Array;
  y: Float64Array;
  depth: Float64Array;
  edges: Uint32Array;
}

/** The part of an axis that is deeper than `above`, at most `limit` deep; cut where it passes through `above`. */
function between(axis: MedialAxis, depth: Float64Array, above: number, limit: number): DepthGraph {
  const { edges } = axis;
  // What is carved whole in one pass needs no copy: its graph is the axis.
  if (above <= 0 && depth.every((d) => d >= 0 && d <= limit)) return { x: axis.x, y: axis.y, depth, edges };
  const x = [...axis.x];
  const y = [...axis.y];
  const d = Array.from(depth, (v) => Math.min(v, limit));
  const kept: number[] = [];
  for (let e = 0; e < edges.length; e += 2) {
    let a = edges[e];
    let b = edges[e + 1];
    if (depth[a] <= above && depth[b] <= above) continue;
    if (depth[a] > depth[b]) [a, b] = [b, a];
    if (depth[a] < above) {
      const t = (above - depth[a]) / (depth[b] - depth[a]);
      x.push(x[a] + t * (x[b] - x[a]));
      y.push(y[a] + t * (y[b] - y[a]));
      d.push(above);
      a = x.length - 1;
    }
    // Where one end is deeper than the limit and the other is not, the bit stays at the limit from there on.
    const da = depthAt(depth, d, a);
    const db = depthAt(depth, d, b);
    if (a !== b && da < limit !== db < limit && da !== limit && db !== limit) {
      const t = (limit - da) / (db - da);
      x.push(x[a] + t * (x[b] - x[a]));
      y.push(y[a] + t * (y[b] - y[a]));
      d.push(limit);
      kept.push(a, x.length - 1, x.length - 1, b);
    } else kept.push(a, b);
  }
  return {
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    depth: Float64Array.from(d),
    edges: Uint32Array.from(kept),
  };
}

/** Depth of a node before any limit: an added node has only the one it was made with. */
function depthAt(depth: Float64Array, limited: readonly number[], n: number): number {
  return n < depth.length ? depth[n] : limited[n];
}
