import type { Clipper, Loops } from '../geometry/clipper.ts';
import { medialAxis, type MedialAxis } from '../geometry/medial-axis.ts';
import { signedArea } from '../geometry/outline.ts';
import { regionsOf, type Region } from '../geometry/regions.ts';
import { depthForRadius, radiusAtDepth, type Profile } from '../bits/bit.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { CutProblem } from './cut-problem.ts';

export interface VCarveSettings {
  bit: Profile;
  /** Deepest the tip may go, mm below the top of the stock. */
  depthLimit: number;
  /** Distance between neighbouring rings on a flat floor, mm. */
  floorStep: number;
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
  /** Area left flat by the depth limit, mm². */
  floorArea: number;
  /** Depth that would carve the widest place to a point, mm. */
  fullDepth: number;
  lifts: number;
}

/** Height above the stock from which a plunge is fed, mm: a rapid move never ends in the wood. */
export const PLUNGE_CLEARANCE = 0.5;

/** How far a floor's rings may stray from the exact offset, mm; far under the step between them. */
const RING_TOLERANCE = 0.002;

/** Depths are rounded to this, mm, towards shallow, so that rounding never cuts past the line. */
const DEPTH_GRAIN = 0.001;

/** The medial axes of what a set of loops covers, one a connected region. */
export function axesOf(area: Loops): { region: Region; axis: MedialAxis }[] {
  return regionsOf(area).map((region) => ({ region, axis: medialAxis(region) }));
}

/**
 * V-carve: along the medial axis at the depth where the bit just touches both walls, d = (r − t)/tan α, and on a flat
 * floor where the depth limit stops it.
 *
 * @param axes from `axesOf`; they depend on the outlines only, so callers keep them while settings change.
 * @throws {CutProblem} for settings that cannot be cut.
 */
export function vCarve(
  axes: readonly { region: Region; axis: MedialAxis }[],
  settings: VCarveSettings,
  clipper: Clipper,
): VCarving {
  const { bit, depthLimit, floorStep } = settings;
  if (bit.slope <= 0) throw new CutProblem('A V-carve needs a V-bit; choose one for this cut.');
  if (!(depthLimit > 0)) throw new CutProblem('The depth limit is 0, so nothing would be carved; give it a depth.');
  if (!(floorStep > 0))
    throw new CutProblem('The floor step is 0, so the floor would never be finished; 0.5 mm is usual.');
  const reach = radiusAtDepth(bit, depthLimit);
  const deepest = depthForRadius(bit, reach);
  const walker = new Walker(settings);
  let tooNarrow = 0;
  let floorArea = 0;
  let widest = 0;
  const order = byNearest(axes.map(({ region }) => region));
  for (const index of order) {
    const { region, axis } = axes[index];
    const depth = new Float64Array(axis.r.length);
    for (let i = 0; i < depth.length; i++) {
      widest = Math.max(widest, axis.r[i]);
      depth[i] = Math.floor(Math.min(deepest, depthForRadius(bit, axis.r[i])) / DEPTH_GRAIN + 1e-6) * DEPTH_GRAIN;
    }
    tooNarrow += walker.axis(axis, depth, bit.flat);
    if (!axis.r.some((r) => r > reach)) continue;
    const floor = clipper.offset(region.loops, -reach);
    for (const loop of floor) floorArea += signedArea(loop);
    const rings: Float64Array[] = [];
    for (let k = 0, ring = floor; ring.length > 0; ring = clipper.offset(region.loops, -reach - ++k * floorStep))
      rings.push(...clipper.simplify(ring, RING_TOLERANCE));
    walker.rings(rings, deepest, (x, y) => axis.clearance.at(x, y) >= reach - 0.002, floorStep);
  }
  walker.finish();
  return {
    path: walker.path.done(),
    tooNarrow,
    floorArea,
    fullDepth: depthForRadius(bit, widest),
    lifts: walker.lifts,
  };
}

/** Regions in turn, nearest next, from the top left: on a line of letters that is left to right. */
function byNearest(regions: readonly Region[]): number[] {
  const rest = new Set(regions.keys());
  const out: number[] = [];
  let [x, y] = [0, Infinity];
  for (const { bounds } of regions) y = y === Infinity ? bounds.maxY : Math.max(y, bounds.maxY);
  while (rest.size) {
    let best = -1;
    let bestDistance = Infinity;
    for (const i of rest) {
      const b = regions[i].bounds;
      const d = Math.hypot((b.minX + b.maxX) / 2 - x, (b.minY + b.maxY) / 2 - y);
      if (d < bestDistance) [best, bestDistance] = [i, d];
    }
    rest.delete(best);
    out.push(best);
    x = (regions[best].bounds.minX + regions[best].bounds.maxX) / 2;
    y = (regions[best].bounds.minY + regions[best].bounds.maxY) / 2;
  }
  return out;
}

/** Walks the bit along axes and rings, and lifts it where going through the groove would take longer. */
class Walker {
  readonly path = new PathBuilder();
  lifts = 0;
  private readonly feed: number;
  private readonly plunge: number;
  private readonly lift: number;
  private readonly rapid: number;

  constructor({ feed, plunge, lift, rapid }: VCarveSettings) {
    this.feed = feed;
    this.plunge = plunge;
    this.lift = lift;
    this.rapid = rapid;
  }

  /** Cuts every edge of an axis once; returns the length left out because the bit's tip is wider than the shape. */
  axis(axis: MedialAxis, depth: Float64Array, flat: number): number {
    const { x, y, r, edges } = axis;
    const incident = new Map<number, number[]>();
    const open = new Set<number>();
    let tooNarrow = 0;
    for (let e = 0; e < edges.length; e += 2) {
      const [a, b] = [edges[e], edges[e + 1]];
      if (Math.max(r[a], r[b]) < flat) {
        tooNarrow += Math.hypot(x[a] - x[b], y[a] - y[b]);
        continue;
      }
      open.add(e);
      for (const n of a === b ? [a] : [a, b]) {
        const list = incident.get(n);
        if (list) list.push(e);
        else incident.set(n, [e]);
      }
    }
    const cut = new Set<number>();
    let at = -1;
    while (open.size) {
      const start =
        at < 0 ? this.nearestEnd(incident, open, axis) : this.nextThroughGroove(at, incident, open, cut, axis, depth);
      if (start !== at) this.enter(x[start], y[start], -depth[start]);
      at = start;
      for (;;) {
        const e = this.straightest(at, incident, open, axis);
        if (e < 0) break;
        open.delete(e);
        cut.add(e);
        const next = edges[e] === at ? edges[e + 1] : edges[e];
        this.cutTo(x[next], y[next], -depth[next]);
        at = next;
      }
    }
    return tooNarrow;
  }

  /** Cuts closed rings on a floor, nearest next; goes straight over where the floor allows it. */
  rings(
    rings: readonly Float64Array[],
    deepest: number,
    onFloor: (x: number, y: number) => boolean,
    step: number,
  ): void {
    const rest = new Set(rings.keys());
    while (rest.size) {
      let best = -1;
      let from = 0;
      let distance = Infinity;
      for (const k of rest)
        for (let i = 0; i < rings[k].length; i += 2) {
          const d = Math.hypot(rings[k][i] - this.path.x, rings[k][i + 1] - this.path.y);
          if (d < distance) [best, from, distance] = [k, i, d];
        }
      rest.delete(best);
      const ring = rings[best];
      const onward =
        distance < 4 * step &&
        this.path.z < 0 &&
        Array.from({ length: 9 }, (_, i) => i / 8).every((t) =>
          onFloor(this.path.x + t * (ring[from] - this.path.x), this.path.y + t * (ring[from + 1] - this.path.y)),
        );
      if (onward) this.cutTo(ring[from], ring[from + 1], -deepest);
      else this.enter(ring[from], ring[from + 1], -deepest);
      for (let i = 2; i <= ring.length; i += 2) {
        const k = (from + i) % ring.length;
        this.cutTo(ring[k], ring[k + 1], -deepest);
      }
    }
  }

  finish(): void {
    if (this.path.length > 0) this.path.to(this.path.x, this.path.y, this.lift, 0);
  }

  private enter(x: number, y: number, z: number): void {
    if (this.path.length > 0) {
      this.path.to(this.path.x, this.path.y, this.lift, 0);
      this.lifts++;
    }
    this.path.to(x, y, this.lift, 0);
    this.path.to(x, y, Math.min(this.lift, PLUNGE_CLEARANCE), 0);
    this.path.to(x, y, z, this.plunge);
  }

  /** A fed move; going down, the plunge rate bounds the speed along the path. */
  private cutTo(x: number, y: number, z: number): void {
    const down = this.path.z - z;
    const length = Math.hypot(x - this.path.x, y - this.path.y, down);
    const feed = down > 0 && length > 0 ? Math.min(this.feed, (this.plunge * length) / down) : this.feed;
    this.path.to(x, y, z, feed);
  }

  /** A loose end near the bit to start from, or any node of a closed axis. */
  private nearestEnd(incident: Map<number, number[]>, open: Set<number>, { x, y }: MedialAxis): number {
    let best = -1;
    let distance = Infinity;
    const [px, py] = this.path.length ? [this.path.x, this.path.y] : [0, 0];
    for (const [n, list] of incident) {
      const left = list.filter((e) => open.has(e)).length;
      if (left === 0) continue;
      const d = Math.hypot(x[n] - px, y[n] - py) + (left === 1 ? 0 : 1000);
      if (d < distance) [best, distance] = [n, d];
    }
    return best;
  }

  private straightest(
    at: number,
    incident: Map<number, number[]>,
    open: Set<number>,
    { x, y, edges }: MedialAxis,
  ): number {
    const list = incident.get(at) ?? [];
    let best = -1;
    let cosine = -Infinity;
    const [ux, uy] = this.path.heading();
    for (const e of list) {
      if (!open.has(e)) continue;
      const n = edges[e] === at ? edges[e + 1] : edges[e];
      const dx = x[n] - x[at];
      const dy = y[n] - y[at];
      const c = (dx * ux + dy * uy) / (Math.hypot(dx, dy) || 1);
      if (c > cosine) [best, cosine] = [e, c];
    }
    return best;
  }

  /**
   * The next place with work left: back through grooves already cut (shortest way, Dijkstra), or by lifting to the
   * nearest loose end, whichever takes less time.
   */
  private nextThroughGroove(
    at: number,
    incident: Map<number, number[]>,
    open: Set<number>,
    cut: Set<number>,
    axis: MedialAxis,
    depth: Float64Array,
  ): number {
    const { x, y, edges } = axis;
    const lifted = this.nearestEnd(incident, open, axis);
    const liftMinutes = (2 * (this.lift + depth[at])) / this.rapid + (depth[lifted] + PLUNGE_CLEARANCE) / this.plunge;
    const budget = liftMinutes * this.feed;
    const distance = new Map<number, number>([[at, 0]]);
    const before = new Map<number, number>();
    const done = new Set<number>();
    for (;;) {
      let here = -1;
      let best = Infinity;
      for (const [n, d] of distance) if (!done.has(n) && d < best) [here, best] = [n, d];
      if (here < 0 || best > budget) return lifted;
      done.add(here);
      const list = incident.get(here) ?? [];
      if (here !== at && list.some((e) => open.has(e))) {
        const way: number[] = [];
        for (let n = here; n !== at; n = before.get(n)!) way.push(n);
        for (const n of way.reverse()) this.cutTo(x[n], y[n], -depth[n]);
        return here;
      }
      for (const e of list) {
        if (!cut.has(e)) continue;
        const n = edges[e] === here ? edges[e + 1] : edges[e];
        const d = best + Math.hypot(x[n] - x[here], y[n] - y[here], depth[n] - depth[here]);
        if (d < (distance.get(n) ?? Infinity)) {
          distance.set(n, d);
          before.set(n, here);
        }
      }
    }
  }
}
