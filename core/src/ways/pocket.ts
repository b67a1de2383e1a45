import { directed } from './directed.ts';
import { wallRounds } from './wall-rounds.ts';
import { Clearance } from '../geometry/clearance.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { medialAxis } from '../geometry/medial-axis.ts';
import { boxGroups } from '../geometry/box-groups.ts';
import { type Bounds, coveredBy, signedArea } from '../geometry/outline.ts';
import { regionsOf } from '../geometry/regions.ts';
import { shapeKey, shiftLoops } from '../geometry/same-shape.ts';
import { insideArea, stretchesOf } from '../geometry/stretches.ts';
import type { Limits } from '../document/limits.ts';
import { measurePath, type Path, pathAlong, PathBuilder } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { checkMoves } from '../motion/too-many-moves.ts';
import { flatTrack, shiftTrack, type Track, trackAt } from '../motion/track.ts';
import { orderTracks } from './order-tracks.ts';
import { graft, toursAlong } from './axis-tours.ts';
import { checkFinish } from './finish-allowance.ts';
import { checkClear } from './checked.ts';
import { CutProblem } from './cut-problem.ts';
import { checkSlope, enterTrack, type Entry } from './entry.ts';
import { openedBy } from './floor.ts';
import { type Drive, layTrack } from './lay-tracks.ts';
import { openingsIn } from './opening.ts';
import { affordable, openedLine, openingsOf } from './pocket-openings.ts';
import { passDepths } from './pass-depths.ts';
import { nestRings } from './rings.ts';
import { ringLevels, ringMoves } from './ring-levels.ts';
import { scanLines } from './scan-lines.ts';
import { LONGEST_SPUR, ON_ROUND, tightPlaces } from './tight-places.ts';

export interface PocketSettings extends Drive {
  /** Diameter of the end mill, mm. */
  diameter: number;
  /** Floor, mm below the top of the stock. */
  depth: number;
  /** Top of what is to be cleared, mm below the top of the stock. */
  startDepth?: number;
  depthPerPass: number;
  /** Depth of the last pass where it is to be thin, mm; 0 leaves all passes even. */
  lastPass?: number;
  /** Distance between neighbouring rings or lines, mm. */
  step: number;
  pattern: 'rings' | 'lines';
  /** Direction of lines, radians. */
  angle: number;
  climb: boolean;
  /** Wood left on the walls for a last round at full depth, mm. */
  finish: number;
  /** Without that last round: a later bit takes what is left. */
  leave?: boolean;
  entry: Entry;
  /** Let rings and lines begin with a slot as wide as the bit, instead of opening the pocket with loops. */
  slots?: boolean;
  /** What the axes can do: loops are weighed against slots by the time they take; without it, by their length. */
  limits?: Limits;
  /** Radii of bits that have cleared before this one, mm: only what they could not reach is cut. */
  clearedBy?: readonly number[];
}

export interface PocketCut {
  path: Path;
  /** Corners and narrow places that this bit and those before it leave, mm². */
  left: number;
  /** Their outlines, on the sheet. */
  leftLoops: Loops;
  passes: number;
  lifts: number;
}

/** What is left and smaller than this, mm², nobody would see. */
const LEFT_WORTH_SHOWING = 0.02;

/** Lines end this share of the radius before the wall. */
const BEFORE_WALL = 0.1;

/** Slivers thinner than twice this are not worth a move, mm: half of what an offset is held to. */
const SLIVER = 0.0025;

/**
 * Clears an area to a depth with an end mill: rings from the inside out or parallel lines with a last ring along the
 * wall, in several depths. What neither covers is found by subtracting all that the bit has swept, and cut as well, so
 * that no place is left that the bit can reach.
 *
 * @param area loops as `Clipper.union` returns them; holes are islands that stay.
 * @throws {CutProblem} for settings that cannot be cut.
 */
export function pocket(area: Loops, settings: PocketSettings, clipper: Clipper): PocketCut {
  const { diameter, depth, startDepth = 0, step } = settings;
  const radius = diameter / 2;
  if (!(step > 0))
    throw new CutProblem('The step is 0, so the floor would never be finished; 40 % of the bit is usual.');
  if (step > diameter)
    throw new CutProblem(
      'The step is wider than the bit, so ridges would be left standing; make it less than the bit.',
    );
  if (settings.entry.kind !== 'plunge') checkSlope(settings.entry.angle);
  checkFinish(settings.finish, diameter);
  const depths = passDepths(depth, startDepth, settings.depthPerPass, settings.lastPass ?? 0);
  const reached = clipper.offset(area, -radius);
  if (reached.length === 0)
    throw new CutProblem('The bit is wider than every place of this pocket; choose a smaller bit.');
  checkMoves(ringMoves(reached, step) * depths.length, 'step');
  const builder = new PathBuilder();
  let lifts = -1;
  let points = 0;
  // Each connected part is cut to its full depth before the next, so that chips of one do not fill another.
  const known = new Map<string, PartTracks>();
  const parts = regionsOf(area).map(({ loops, bounds: { minX, minY } }) => {
    // Equal parts, such as the letters of a text, are worked out once.
    const key = shapeKey(loops, minX, minY);
    let local = known.get(key);
    if (!local) {
      const own = shiftLoops(loops, -minX, -minY);
      local = partTracks(own, settings, clipper);
      checkClear([...local.rough, ...local.last], own, true, radius);
      known.set(key, local);
    }
    for (const { xyz } of local.rough) points += xyz.length / 3;
    checkMoves(points * depths.length, 'step');
    return placed(local, minX, minY);
  });
  const order = orderTracks(
    parts.map(({ rough, last }) => rough[0] ?? last[0]).filter((track) => track !== undefined),
    { x: 0, y: 0 },
  );
  const full = parts.filter(({ rough, last }) => rough.length + last.length > 0);
  for (const { track: index } of order) {
    const { rough, last, room } = full[index];
    // Tracks that are far apart, as in two corners, are each cut to full depth before the next.
    for (const group of boxGroups(rough.map(boxOf), diameter)) {
      let top = -startDepth;
      for (const z of depths.map((d) => -d)) {
        for (const k of group) {
          lifts++;
          const flat = trackAt(rough[k], z);
          layTrack(builder, enterTrack(flat, top, settings.entry, room(flat), radius), settings);
        }
        top = z;
      }
    }
    for (const track of last) {
      lifts++;
      layTrack(builder, trackAt(track, -depth), settings);
    }
  }
  if (builder.length) builder.rapid(builder.x, builder.y, settings.lift);
  return {
    path: builder.done(),
    left: parts.reduce((sum, part) => sum + coveredBy(part.left), 0),
    leftLoops: parts.flatMap((part) => part.left).filter((loop) => Math.abs(signedArea(loop)) > LEFT_WORTH_SHOWING),
    passes: depths.length,
    lifts: Math.max(0, lifts),
  };
}

function boxOf({ xyz }: Track): Bounds {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (let i = 0; i < xyz.length; i += 3) {
    box.minX = Math.min(box.minX, xyz[i]);
    box.maxX = Math.max(box.maxX, xyz[i]);
    box.minY = Math.min(box.minY, xyz[i + 1]);
    box.maxY = Math.max(box.maxY, xyz[i + 1]);
  }
  return box;
}

interface PartTracks {
  /** Cut at every depth. */
  rough: Track[];
  /** Cut once, at full depth. */
  last: Track[];
  /** Free distance around a track's start for a helix, mm. */
  room: (track: Track) => number;
  /** What neither this bit nor those before it reach. */
  left: Loops;
}

function placed({ rough, last, room, left }: PartTracks, dx: number, dy: number): PartTracks {
  return {
    rough: rough.map((track) => shiftTrack(track, dx, dy)),
    last: last.map((track) => shiftTrack(track, dx, dy)),
    room: (track) => room(shiftTrack(track, -dx, -dy)),
    left: shiftLoops(left, dx, dy),
  };
}

function partTracks(part: Loops, settings: PocketSettings, clipper: Clipper): PartTracks {
  const { diameter, step, pattern, angle, climb, finish, slots = false, leave = false, clearedBy = [] } = settings;
  const radius = diameter / 2;
  const before = openedBy(part, clearedBy, clipper, finish);
  const left = clipper.difference(part, openedBy(part, [...clearedBy, radius], clipper));
  const levels = ringLevels(part, radius + finish, step, clipper);
  const wall = finish > 0 && !leave ? ringLevels(part, radius, Infinity, clipper)[0] : undefined;
  const tight = wall ? tightPlaces(wall, finish, LONGEST_SPUR * diameter) : { tours: [], ways: [] };
  const narrow = tight.ways.map((way) => flatTrack(way, 0, false));
  const finished = (rough: Track[]): Pick<PartTracks, 'rough' | 'last'> => {
    const all = [...graft(rough, tight.tours, ON_ROUND), ...narrow];
    // On the outermost ring everything is cleared by then, by this bit or by those before it.
    const cleared = [...(levels[0] ?? []).map((loop) => flatTrack(loop, 0, true)), ...narrow];
    return { rough: all, last: wall ? wallRounds(wall, cleared, finish, climb) : [] };
  };
  if (levels.length === 0) return { ...finished([]), room: () => 0, left };
  const legal = Clearance.ofLoops(levels[0]);
  const roomAt = (x: number, y: number) => (insideArea(levels[0], x, y) ? Math.max(0, legal.at(x, y) - 1e-3) : 0);
  const room = (track: Track) => roomAt(track.xyz[0], track.xyz[1]);
  const reachable = clipper.offset(levels[0], radius);
  const wanted = before.length ? clipper.offset(clipper.difference(reachable, before), -SLIVER) : reachable;
  if (wanted.length === 0) return { ...finished([]), room, left };
  const timeOf = ({ xyz }: Track) => {
    const path = pathAlong(xyz, settings.feed);
    return settings.limits ? planMotion(path, settings.limits).minutes : measurePath(path).cut;
  };
  const opening = { radius, step, climb, room: roomAt };
  if (before.length) {
    const rest = restTracks(levels, wanted, step, radius, climb, clipper);
    const loops = slots ? [] : regionsOf(levels[0]).flatMap((region) => openingsIn(region, levels, opening, wanted));
    const most = rest.reduce((sum, track) => sum + timeOf(track), 0);
    return { ...finished([...inOrder(affordable(loops, most, timeOf)), ...rest]), room, left };
  }
  // A line passes within half a step of every place further than that from the wall, and the ring along the wall the
  // rest: lines miss nothing. They end a little before the wall, so that its wood is taken by the ring, in its direction.
  if (pattern === 'lines')
    return {
      ...finished([
        ...scanLines(clipper.offset(levels[0], -BEFORE_WALL * radius), angle, step, 0).flatMap((track) =>
          slots ? [track] : openedLine(track, levels[0], opening, timeOf),
        ),
        ...levels[0].map((loop) => directed(flatTrack(loop, 0, true), climb)),
      ]),
      room,
      left,
    };
  const { before: first, openings } = slots ? { before: [], openings: undefined } : openingsOf(levels, opening, timeOf);
  const missed = missedBetween(levels, step, radius, clipper);
  const rough = [...first, ...nestRings(levels, 0, { climb, openings })];
  return { ...finished(withMissed(rough, missed, levels, settings)), room, left };
}

/** Tracks that also go along the middles of places that they miss. */
function withMissed(
  tracks: readonly Track[],
  missed: readonly Loops[],
  levels: readonly Loops[],
  { step, diameter }: PocketSettings,
): Track[] {
  const tours: Float64Array[] = [];
  const ways: Float64Array[] = [];
  missed.forEach((area, k) => {
    if (area.length === 0) return;
    const ring = Clearance.ofLoops(levels[k]);
    for (const region of regionsOf(area)) {
      const axis = medialAxis(region);
      const found = toursAlong(axis, (node) => ring.at(axis.x[node], axis.y[node]), LONGEST_SPUR * diameter);
      tours.push(...found.tours);
      ways.push(...found.ways);
    }
  });
  const alone = ways.map((line) => flatTrack(line, 0, false));
  return [...graft(tracks, tours, step + diameter), ...alone];
}

/**
 * What lies between rings and is covered by none, by the outer ring's level: further inside one than the radius, and
 * further from the next. Rings no further apart than the radius miss nothing, since every place that deep inside one lies
 * inside the next.
 */
function missedBetween(levels: readonly Loops[], step: number, radius: number, clipper: Clipper): Loops[] {
  if (step <= radius - SLIVER) return [];
  return levels.map((level, k) => {
    const deep = clipper.offset(level, -radius);
    if (deep.length === 0) return [];
    const next = levels[k + 1];
    return clipper.offset(next ? clipper.difference(deep, clipper.offset(next, radius)) : deep, -SLIVER);
  });
}

/** Of every ring only the stretches from where the bit still meets wood. */
function restTracks(
  levels: readonly Loops[],
  wanted: Loops,
  step: number,
  radius: number,
  climb: boolean,
  clipper: Clipper,
): Track[] {
  const near = clipper.offset(wanted, radius);
  const rough: Track[] = [];
  for (const loop of [...levels].reverse().flat())
    for (const { points, whole } of stretchesOf(loop, near, true)) {
      const track = { ...flatTrack(points, 0, false), oneWay: true };
      rough.push(directed(whole ? { ...track, closed: true, ring: points.length / 2 } : track, climb));
    }
  const missed = missedBetween(levels, step, radius, clipper).flatMap((area) => clipper.intersection(area, wanted));
  if (missed.length) rough.push(...spines(missed));
  return inOrder(rough);
}

function inOrder(tracks: readonly Track[]): Track[] {
  const order = orderTracks(tracks, { x: tracks[0]?.xyz[0] ?? 0, y: tracks[0]?.xyz[1] ?? 0 });
  return order.map(({ track }) => tracks[track]);
}

/** Along the medial axes of small places, which the bit’s radius covers whole. */
function spines(area: Loops): Track[] {
  return regionsOf(area).flatMap((region) => {
    const axis = medialAxis(region);
    return toursAlong(axis, () => Infinity, 0).ways.map((line) => flatTrack(line, 0, false));
  });
}
