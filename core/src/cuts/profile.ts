import { ArcLength } from '../geometry/arc-length.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { Clearance } from '../geometry/clearance.ts';
import { boxGroups } from '../geometry/box-groups.ts';
import { boundsOf, signedArea } from '../geometry/outline.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { MOST_MOVES } from '../motion/too-many-moves.ts';
import { orderTracks } from '../sequence/order-tracks.ts';
import { CutProblem } from './cut-problem.ts';
import { checkSlope } from './entry.ts';
import { type Drive, follow, layTrack } from './lay-tracks.ts';
import { passDepths } from './pass-depths.ts';
import { leadOf } from './profile-lead.ts';
import { sharpCorners, startOf, type StartSettings } from './profile-start.ts';
import { placeTabs, type Tab, tabAt } from './tabs.ts';

export interface ProfileSettings extends Drive, StartSettings {
  /** How deep, mm below the top of the stock. */
  depth: number;
  depthPerPass: number;
  /** Thickness of a thin last pass, mm; 0 for even passes. */
  lastPass?: number;
  /** Left at the bottom of the stock to hold the part, mm; the depth then ends above the stock's underside by it. */
  skin?: number;
  /** Wood left on the wall in all passes but a last round at full depth, mm. */
  finish?: number;
  /** Climb milling keeps the wood on the right of the bit (with a spindle that turns clockwise). */
  climb: boolean;
  tabs: {
    count: number;
    length: number;
    height: number;
    shape?: 'square' | 'ramped';
    /** Places chosen by hand, on the sheet; they take the place of the count. */
    at?: readonly { x: number; y: number }[];
  };
  /** Slope of the way down along the path, radians; 0 plunges. */
  ramp?: number;
  /** How far the last pass goes on past its start, mm. */
  overlap?: number;
  /** Thickness of the stock, mm: tabs stand up from its underside. */
  thickness: number;
}

export interface ProfileCut {
  path: Path;
  tabs: Tab[];
  /** Where each loop begins, on the sheet. */
  starts: { x: number; y: number }[];
  /** Loops that vanished because the bit does not fit into them. */
  lost: number;
  passes: number;
  /** Loops whose lead would have cut into the part or its neighbour, and so was left away. */
  noLead: number;
}

/** How far the path may stray from the exact offset, mm. */
const SMOOTHING = 0.001;

/**
 * Cuts along outlines at half the bit's diameter, inner loops before outer ones. Over tabs the bit rises to leave them
 * standing.
 *
 * @param area loops as `Clipper.union` returns them.
 * @throws {CutProblem} for settings that cannot be cut.
 */
export function profile(area: Loops, settings: ProfileSettings, clipper: Clipper): ProfileCut {
  const { diameter, side, climb, tabs, thickness, skin = 0, finish = 0, lift } = settings;
  const depth = skin > 0 ? Math.min(settings.depth, thickness - skin) : settings.depth;
  if (skin > 0 && depth <= 0)
    throw new CutProblem('The skin is as thick as the stock, so nothing would be cut; make it thinner.');
  if (skin >= thickness) throw new CutProblem('The skin is thicker than the stock; make it thinner.');
  const depths = passDepths(depth, 0, settings.depthPerPass, settings.lastPass ?? 0);
  if (settings.ramp) checkSlope(settings.ramp);
  const sign = side === 'outside' ? 1 : side === 'inside' ? -1 : 0;
  const offsetBy = (distance: number) =>
    distance === 0 ? area : clipper.simplify(clipper.offset(area, distance), SMOOTHING);
  const loops = offsetBy((sign * diameter) / 2);
  if (loops.length === 0)
    throw new CutProblem('The bit is wider than the outline it should cut inside; choose a smaller bit.');
  const lost = side === 'inside' ? Math.max(0, area.length - loops.length) : 0;
  const rough = finish > 0 && sign !== 0 ? offsetBy(sign * (diameter / 2 + finish)) : [];
  const builder = new PathBuilder();
  const placed: Tab[] = [];
  const starts: ProfileCut['starts'] = [];
  const corners = sharpCorners(area, side);
  let noLead = 0;
  const guard = { edge: Clearance.ofLoops(loops), loops, sign };
  const cutLoop = (raw: Float64Array, heights: readonly number[]) => {
    const isHole = signedArea(raw) < 0;
    // The part lies inside an outer loop cut outside. Climb: the bit goes clockwise round a part, so that it is on
    // the bit's right.
    const partInside = side === 'inside' ? isHole : !isHole;
    const counterClockwise = partInside ? !climb : climb;
    const loop = signedArea(raw) > 0 === counterClockwise ? raw : reversed(raw);
    const measured = new ArcLength(loop);
    const through = depth > thickness - tabs.height && skin === 0;
    const width = tabs.length + diameter;
    const loopTabs = !through
      ? []
      : tabs.at?.length
        ? tabs.at
            .filter((p) => distanceTo(loop, p) < diameter)
            .map((p) => tabAt(loop, measured.nearest(p.x, p.y), width))
        : tabs.count > 0
          ? placeTabs(loop, tabs.count, width)
          : [];
    const start = startOf(measured, loopTabs, settings, corners);
    if (loops.includes(raw)) {
      placed.push(...loopTabs);
      const { x, y } = measured.pointAt(start);
      starts.push({ x, y });
    }
    const leadAt = (s: number) => leadOf(measured, s, settings, partInside === counterClockwise, guard);
    const lead = leadAt(start);
    if (settings.lead && settings.lead.kind !== 'none' && !lead) noLead++;
    return { measured, loopTabs, start, lead, leadAt, heights };
  };
  const edges = rough.length ? loops.map((loop) => Clearance.ofLoops([loop])) : [];
  const todo = innerFirst(loops).flatMap((raw) => [
    // What was left on a wall comes off right after it was left, before anything around it is cut.
    ...rough.filter((loop) => loops[nearestOf(edges, loop)] === raw).map((loop) => cutLoop(loop, depths)),
    cutLoop(raw, rough.length ? [depth] : depths),
  ]);
  for (const { measured, loopTabs, start, lead, leadAt, heights } of todo) {
    const ceiling = -(thickness - tabs.height);
    let above = 0;
    let from = start;
    for (const [pass, d] of heights.entries()) {
      const z = -d;
      const lastOne = pass === heights.length - 1;
      const slope = settings.ramp ?? 0;
      // More than a whole turn more cuts nothing.
      const overlap = lastOne ? Math.min(settings.overlap ?? 0, measured.total) : 0;
      const points = turnOf(measured, from, z < ceiling ? loopTabs : [], z, ceiling, {
        ramped: tabs.shape === 'ramped',
        diameter,
        overlap: slope > 0 ? 0 : overlap,
      });
      const way = slope > 0 ? rampIn(points, above, z, slope, overlap) : points;
      const run = slope > 0 ? (above - z) / Math.tan(slope) : 0;
      // The way out starts from where the turn ends, which a ramp and an overlap have moved along the outline.
      const out = lead && lastOne ? leadAt(from + run + overlap) : undefined;
      const full = lead ? [...flat(lead.in, way[2]), ...way, ...flat(out?.out ?? [], way[way.length - 1])] : way;
      // A ramped turn ends where its ramp did; the next begins there.
      if (!lead) from += run;
      if (pass > 0 && !lead && Math.hypot(builder.x - full[0], builder.y - full[1]) < 1e-6)
        follow(builder, full, settings);
      else layTrack(builder, { xyz: Float64Array.from(full), closed: false, ring: 0, oneWay: true }, settings);
      above = z;
    }
  }
  if (builder.length) builder.to(builder.x, builder.y, lift, 0);
  return { path: builder.done(), tabs: placed, starts, lost, passes: depths.length, noLead };
}

/**
 * Loops in groups that lie within each other, the smaller first, so that what lies inside is cut while the part around
 * it still holds; the groups by short links.
 */
function innerFirst(loops: Loops): Loops {
  const groups = boxGroups(loops.map((points) => boundsOf([{ points }])!)).map((group) =>
    group.map((k) => loops[k]).sort((a, b) => Math.abs(signedArea(a)) - Math.abs(signedArea(b))),
  );
  const places = groups.map(([{ 0: x, 1: y }]) => ({
    xyz: Float64Array.of(x, y, 0),
    closed: true,
    ring: 0,
    oneWay: true,
  }));
  return orderTracks(places, { x: 0, y: 0 }).flatMap(({ track }) => groups[track]);
}

function reversed(loop: Float64Array): Float64Array {
  const out = new Float64Array(loop.length);
  for (let i = 0; i < loop.length; i += 2) {
    out[i] = loop[loop.length - 2 - i];
    out[i + 1] = loop[loop.length - 1 - i];
  }
  return out;
}

function distanceTo(loop: Float64Array, { x, y }: { x: number; y: number }): number {
  return Clearance.ofLoops([loop]).at(x, y);
}

function flat(points: readonly [number, number][], z: number): number[] {
  return points.flatMap(([x, y]) => [x, y, z]);
}

/** Which of some loops a loop runs along. */
function nearestOf(edges: readonly Clearance[], loop: Float64Array): number {
  const distances = edges.map((edge) => edge.at(loop[0], loop[1]));
  return distances.indexOf(Math.min(...distances));
}

/** The beginning of a turn as a ramp from `above`, and after the turn what the ramp has cut too shallow again. */
function rampIn(points: readonly number[], above: number, z: number, slope: number, overlap: number): number[] {
  const run = (above - z) / Math.tan(slope);
  const out: number[] = [points[0], points[1], above];
  let gone = 0;
  let turns = 0;
  for (let i = 3; ; i += 3) {
    if (i >= points.length) {
      i = 3;
      if (++turns > 200 || out.length > 3 * MOST_MOVES)
        throw new CutProblem('The ramp is too shallow for so short an outline; make it steeper.');
    }
    const [px, py] = [points[i - 3], points[i - 2]];
    const length = Math.hypot(points[i] - px, points[i + 1] - py);
    if (gone + length < run) {
      gone += length;
      out.push(points[i], points[i + 1], Math.max(points[i + 2], above + ((z - above) * gone) / run));
      continue;
    }
    const t = length > 0 ? (run - gone) / length : 1;
    const [x, y] = [px + t * (points[i] - px), py + t * (points[i + 1] - py)];
    out.push(x, y, Math.max(z, points[i - 1]));
    // A whole turn at depth from here back to here.
    for (let k = i; k < points.length; k += 3) out.push(points[k], points[k + 1], points[k + 2]);
    for (let k = 3; k < i; k += 3) out.push(points[k], points[k + 1], points[k + 2]);
    out.push(x, y, Math.max(z, points[i - 1]));
    for (let left = overlap, k = i; left > 0; k = k + 3 < points.length ? k + 3 : 3) {
      const [qx, qy] = [out[out.length - 3], out[out.length - 2]];
      const far = Math.hypot(points[k] - qx, points[k + 1] - qy);
      const share = far > left ? left / far : 1;
      out.push(qx + share * (points[k] - qx), qy + share * (points[k + 1] - qy), points[k + 2]);
      left -= Math.max(far, 1e-6);
    }
    return out;
  }
}

/** One turn round a loop as x, y, z triples, from arc length `start`, at `z` or, over tabs, at `ceiling`. */
function turnOf(
  measured: ArcLength,
  start: number,
  tabs: readonly Tab[],
  z: number,
  ceiling: number,
  { ramped, diameter, overlap }: { ramped: boolean; diameter: number; overlap: number },
): number[] {
  const { at, total } = measured;
  const end = total + Math.min(overlap, total);
  const stops: { s: number; heights?: number[] }[] = [];
  const add = (s: number, heights?: number[]) => {
    const first = measured.wrap(s - start);
    for (let q = first; q <= end + 1e-12; q += total) stops.push({ s: q, heights });
  };
  for (let i = 0; i + 1 < at.length; i++) add(at[i]);
  for (const tab of tabs) {
    if (ramped) {
      // Up to the middle and down again, so that the tab is a ridge that breaks off easily.
      const middle = (tab.from + tab.to) / 2;
      add(tab.from + diameter / 2, [z]);
      add(middle, [ceiling]);
      add(tab.to - diameter / 2, [z]);
    } else {
      add(tab.from, [z, ceiling]);
      add(tab.to, [ceiling, z]);
    }
  }
  stops.push({ s: 0 }, { s: end });
  stops.sort((a, b) => a.s - b.s);
  const ridgeAt = (s: number): number => {
    for (const tab of tabs) {
      const half = (tab.to - tab.from - diameter) / 2;
      const off = Math.abs(measured.wrap(s + start - (tab.from + tab.to) / 2 + total / 2) - total / 2);
      if (off < half) return z + (ceiling - z) * (1 - off / half);
    }
    return z;
  };
  const out: number[] = [];
  let height = z;
  for (const stop of stops) {
    const { x, y } = measured.pointAt(start + stop.s);
    if (ramped) out.push(x, y, stop.heights ? stop.heights[0] : ridgeAt(stop.s));
    else if (stop.heights) {
      for (const h of stop.heights) out.push(x, y, h);
      height = stop.heights[stop.heights.length - 1];
    } else out.push(x, y, height);
  }
  return out;
}
