import Flatbush from 'flatbush';
import { ArcLength } from '../geometry/arc-length.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { Clearance } from '../geometry/clearance.ts';
import { Turning } from '../geometry/turning.ts';
import { boxGroups } from '../geometry/box-groups.ts';
import { boundsOf, signedArea } from '../geometry/outline.ts';
import { Sides } from '../geometry/sides.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { flatTrack } from '../motion/track.ts';
import { orderTracks } from './order-tracks.ts';
import { checkClear } from './checked.ts';
import { checkFinish } from './finish-allowance.ts';
import { CutProblem } from './cut-problem.ts';
import { checkSlope, LEAST_WAY } from './entry.ts';
import { type Drive, follow, layTrack } from './lay-tracks.ts';
import { type MovedOutlines, movedOutlines } from './moved-outlines.ts';
import { passDepths } from './pass-depths.ts';
import { type Lead, leadOf } from './profile-lead.ts';
import { rampBefore, rampIn, rampsBehindTabs } from './profile-ramps.ts';
import { sharpCorners, startOf, type StartSettings } from './profile-start.ts';
import { turnOf } from './profile-turn.ts';
import { StandingTabs } from './standing-tabs.ts';
import { TabRoom } from './tab-room.ts';
import { placeTabs, type Tab, tabRound } from './tabs.ts';
import { ON_ROUND } from './tight-places.ts';
import { roughRounds } from './rough-rounds.ts';

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
    /** Also where a skin or the stock below holds the part. */
    anyway?: boolean;
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
  /** Loops that the bit does not fit into, or not through, or not between; see `MovedOutlines`. */
  missed: MovedOutlines;
  passes: number;
  /** Loops whose lead would have cut into the part or its neighbour, and so was left away. */
  noLead: number;
  /** What holds the part, so that the tabs asked for are left out. */
  heldBy?: 'skin' | 'stock';
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
  checkFinish(finish, diameter);
  const depths = passDepths(depth, 0, settings.depthPerPass, settings.lastPass ?? 0);
  if (settings.ramp) checkSlope(settings.ramp);
  const sign = side === 'outside' ? 1 : side === 'inside' ? -1 : 0;
  const offsetBy = (distance: number) =>
    distance === 0 ? area : clipper.simplify(clipper.offset(area, distance), SMOOTHING);
  const loops = offsetBy((sign * diameter) / 2);
  if (loops.length === 0)
    throw new CutProblem('The bit is wider than the outline it should cut inside; choose a smaller bit.');
  const missed = sign === 0 ? { lost: 0, split: 0, grown: 0 } : movedOutlines(area, loops.map((points) => ({ points, hole: signedArea(points) < 0 })), sign > 0); // prettier-ignore
  const allowance = sign !== 0 ? finish : 0;
  const around = roughRounds(loops, settings, sign, clipper, offsetBy);
  const builder = new PathBuilder();
  const placed: Tab[] = [];
  const starts: ProfileCut['starts'] = [];
  const corners = sharpCorners(area, side);
  let noLead = 0;
  const edge = Clearance.ofLoops(loops);
  const sides = new Sides(loops);
  const wantsTabs = tabs.count > 0 || (tabs.at?.length ?? 0) > 0;
  const holds = skin > 0 ? 'skin' : depth <= thickness - tabs.height ? 'stock' : undefined;
  const tabsStand = wantsTabs && (holds === undefined || tabs.anyway === true);
  const width = tabs.length + diameter;
  // From the underside of the stock, or from the floor of a cut that leaves something below.
  const ceiling = tabs.height - (tabs.anyway ? Math.min(depth, thickness) : thickness);
  const slope = settings.ramp ?? 0;
  const turned = (raw: Float64Array) => {
    const isHole = signedArea(raw) < 0;
    // The part lies inside an outer loop cut outside. Climb: the bit goes clockwise round a part, so that it is on
    // the bit's right.
    const partInside = side === 'inside' ? isHole : !isHole;
    const counterClockwise = partInside ? !climb : climb;
    const loop = signedArea(raw) > 0 === counterClockwise ? raw : reversed(raw);
    return { measured: new ArcLength(loop), partOnLeft: partInside === counterClockwise };
  };
  const walls = innerFirst(loops).map((raw) => ({ raw, ...turned(raw) }));
  const room = new TabRoom(tabsStand ? walls.map(({ measured }) => measured) : [], diameter / 2);
  const tabsOf = walls.map(({ measured, partOnLeft }, k): Tab[] => {
    if (!tabsStand) return [];
    const { loop } = measured;
    const turning = new Turning(measured);
    const part = side === 'on' ? 'on' : partOnLeft ? 'left' : 'right';
    const make = (middle: number) => tabRound(measured, turning, middle, { length: tabs.length, diameter, part });
    if (tabs.at?.length)
      return tabs.at.filter((p) => distanceTo(loop, p) < diameter).map((p) => make(measured.nearest(p.x, p.y)));
    return tabs.count > 0 ? placeTabs(loop, tabs.count, width, (tab) => room.stands(k, tab), make) : [];
  });
  const standing = new StandingTabs(
    walls.map(({ measured }, k) => ({ measured, tabs: tabsOf[k] })),
    diameter / 2,
  );
  const todo = walls.flatMap(({ raw, measured, partOnLeft }, k): Round[] => {
    const loopTabs = tabsOf[k];
    const guard = { edge, sides, sign, takes: (px: number, py: number) => standing.takes(k, px, py) };
    placed.push(...loopTabs);
    const start = startOf(measured, loopTabs, settings, corners);
    const { x, y } = measured.pointAt(start);
    starts.push({ x, y });
    const lead = leadOf(measured, start, settings, partOnLeft, guard);
    if (settings.lead && settings.lead.kind !== 'none' && !lead) noLead++;
    // What was left on a wall comes off right after it was left, before anything around it is cut.
    const before = around.get(raw) ?? [];
    const rough = before.map((line): Round => {
      const own = turned(line);
      const beside = own.measured.nearest(x, y);
      return {
        measured: own.measured,
        // The same tabs as on the wall, else each round would cut away the other's.
        tabs: loopTabs.flatMap((tab) => tabBeside(own.measured, measured, tab, allowance)),
        start: beside,
        lead: lead && leadOf(own.measured, beside, settings, own.partOnLeft, guard),
        leadAt: (s) => leadOf(own.measured, s, settings, own.partOnLeft, guard),
        heights: depths,
      };
    });
    // A way in that the rough round has not cleared would be cut at full depth at once.
    const cleared = (way: Lead | undefined) =>
      way && rough.some((round) => round.lead && alongside(way, round, allowance)) ? way : undefined;
    const wall: Round = {
      measured,
      tabs: loopTabs,
      start,
      lead: before.length ? cleared(lead) : lead,
      leadAt: (s) => {
        const way = leadOf(measured, s, settings, partOnLeft, guard);
        return before.length ? cleared(way) : way;
      },
      heights: before.length ? [depth] : depths,
    };
    return [...rough, wall];
  });
  if (sign !== 0) {
    const near = new Flatbush(area.length);
    for (const points of area) {
      const { minX, minY, maxX, maxY } = boundsOf([{ points }])!;
      near.add(minX, minY, maxX, maxY);
    }
    near.finish();
    for (const { measured, lead } of todo) {
      const lines = [measured.loop, ...[lead?.in, lead?.out].map((way) => Float64Array.from(way?.flat() ?? []))];
      const { minX, minY, maxX, maxY } = boundsOf(lines.map((points) => ({ points })))!;
      const tracks = lines.filter((line) => line.length > 0).map((line, k) => flatTrack(line, 0, k === 0));
      const outline = near.search(minX - diameter, minY - diameter, maxX + diameter, maxY + diameter);
      checkClear(
        tracks,
        outline.sort((p, q) => p - q).map((k) => area[k]),
        sign < 0,
        diameter / 2,
      );
    }
  }
  for (const round of todo) {
    const { measured, lead, heights } = round;
    let above = 0;
    let from = round.start;
    for (const [pass, d] of heights.entries()) {
      const z = -d;
      const run = slope > 0 ? (above - z) / Math.tan(slope) : 0;
      // More than a whole turn more cuts nothing. A way out that is not the same in every pass would be cut at full depth.
      const wanted = lead || pass === heights.length - 1 ? (settings.overlap ?? 0) : 0;
      const overlap = Math.min(wanted, measured.total);
      const tabsHere = z < ceiling ? round.tabs : [];
      const turn = { ramped: tabs.shape === 'ramped', diameter };
      const alongTheTurn = run > 0 && !lead && tabsHere.length === 0;
      let way: number[];
      if (alongTheTurn)
        way = rampIn(turnOf(measured, from, [], z, ceiling, { ...turn, overlap: 0 }), above, z, slope, overlap);
      else {
        const free = freeAfter(measured, from, tabsHere);
        // Down between two tabs, there and back; where one stands in the way, elsewhere.
        if (run > 0 && !lead && free < Math.min(run / 2, 2 * diameter)) from = longestFreeFrom(measured, tabsHere);
        way = [...flat(lead?.in ?? [], z), ...turnOf(measured, from, tabsHere, z, ceiling, { ...turn, overlap })];
        if (run > 0) {
          const onward = freeAfter(measured, from, tabsHere) + (lead ? lengthOfLine(lead.in) : 0);
          way = rampsBehindTabs(rampBefore(way, above, z, run, onward), above, slope, LEAST_WAY * diameter);
        }
      }
      const out = lead ? round.leadAt(from + overlap) : undefined;
      const full = [...way, ...flat(out?.out ?? [], way[way.length - 1])];
      // A ramped turn ends where its ramp did; the next begins there.
      if (alongTheTurn) from += run;
      if (pass > 0 && !lead && Math.hypot(builder.x - full[0], builder.y - full[1]) < 1e-6)
        follow(builder, full, settings);
      else layTrack(builder, { xyz: Float64Array.from(full), closed: false, ring: 0, oneWay: true }, settings);
      above = z;
    }
  }
  if (builder.length) builder.rapid(builder.x, builder.y, lift);
  return {
    path: builder.done(),
    tabs: placed,
    starts,
    missed,
    passes: depths.length,
    noLead,
    ...(wantsTabs && !tabsStand && { heldBy: holds }),
  };
}

/** One loop that is gone round at some depths. */
interface Round {
  measured: ArcLength;
  tabs: Tab[];
  start: number;
  lead: Lead | undefined;
  leadAt: (s: number) => Lead | undefined;
  heights: readonly number[];
}

/** Whether a way in or out lies no further beside what a rough round has cleared than its allowance. */
function alongside(way: Lead, { lead, measured }: Round, allowance: number): boolean {
  if (!lead) return false;
  const start = measured.pointAt(measured.nearest(...way.in[0]));
  const lines = [lead.in, lead.out].map((points) => Float64Array.from(points.flat()));
  return [...way.in, ...way.out].every(([x, y]) => {
    const on = measured.pointAt(measured.nearest(x, y));
    const near = Math.min(
      Math.hypot(on.x - x, on.y - y),
      Math.hypot(start.x - x, start.y - y),
      ...lines.map((line) => toLine(line, x, y)),
    );
    return near <= allowance + ON_ROUND;
  });
}

function toLine(line: Float64Array, x: number, y: number): number {
  let best = Math.hypot(line[0] - x, line[1] - y);
  for (let i = 2; i < line.length; i += 2) {
    const [ax, ay] = [line[i - 2], line[i - 1]];
    const [dx, dy] = [line[i] - ax, line[i + 1] - ay];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
    best = Math.min(best, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return best;
}

/** Places along a tab at which is looked whether it lies beside another loop. */
const LOOKS = 48;
/** Further from its wall than so many allowances a rough round is another stretch’s, and not this one’s. */
const BESIDE = 3;

/**
 * A tab as it lies on a rough round beside its own wall: no end of it stands out where the other is cut. Of a wall that has
 * several rounds, those that it does not lie beside have none of it.
 */
function tabBeside(on: ArcLength, own: ArcLength, tab: Tab, allowance: number): Tab[] {
  const beside: number[] = [];
  for (let k = 0; k <= LOOKS; k++) {
    const { x, y } = own.pointAt(tab.from + ((tab.to - tab.from) * k) / LOOKS);
    const s = on.nearest(x, y);
    const there = on.pointAt(s);
    if (Math.hypot(there.x - x, there.y - y) <= BESIDE * allowance) beside.push(s);
  }
  if (beside.length < 2) return [];
  const [from, to] = [beside[0], beside[beside.length - 1]];
  return [{ ...tab, from, to: to < from ? to + on.total : to }];
}

/** How far a loop is free of tabs after a place; 0 on a tab. */
function freeAfter({ total }: ArcLength, from: number, tabs: readonly Tab[]): number {
  const turn = (s: number) => ((s % total) + total) % total;
  return tabs.reduce((free, tab) => {
    const ahead = turn(tab.from - from);
    return turn(from - tab.from) < tab.to - tab.from ? 0 : Math.min(free, ahead);
  }, total);
}

/** Where the longest stretch without a tab begins. */
function longestFreeFrom(measured: ArcLength, tabs: readonly Tab[]): number {
  let best = 0;
  let longest = -1;
  for (const { to } of tabs) {
    const free = freeAfter(measured, to + 1e-6, tabs);
    if (free > longest) [best, longest] = [to + 1e-6, free];
  }
  return best;
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

function lengthOfLine(points: readonly [number, number][]): number {
  return points.reduce(
    (sum, [x, y], i) => (i > 0 ? sum + Math.hypot(x - points[i - 1][0], y - points[i - 1][1]) : 0),
    0,
  );
}

function flat(points: readonly [number, number][], z: number): number[] {
  return points.flatMap(([x, y]) => [x, y, z]);
}
