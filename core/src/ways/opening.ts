import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { incidence } from '../geometry/incidence.ts';
import { medialAxis } from '../geometry/medial-axis.ts';
import type { Region } from '../geometry/regions.ts';
import { Sides } from '../geometry/sides.ts';
import { insideArea } from '../geometry/stretches.ts';
import { checkMoves } from '../motion/too-many-moves.ts';
import type { Track } from '../motion/track.ts';

/** How far past the first ring a point of a loop may lie by rounding, mm. */
const ROUNDING = 0.002;

export interface OpeningSettings {
  /** Radius of the bit, mm. */
  radius: number;
  /** Distance from one loop to the next, mm: what is taken off at once. */
  step: number;
  climb: boolean;
  /** Free distance around a place within which the bit’s middle may turn, mm. */
  room: (x: number, y: number) => number;
}

/** Moves are looked at every so many radii of the bit. */
const BETWEEN = 0.25;

/** Loops are this share of the bit’s radius wide: smaller ones bury it again, larger ones take longer. */
const LOOP = 0.5;

/** Of a smaller share than this a loop does not help; the bit goes straight on. */
const SMALLEST = 0.1;

/** A line that strays no further than this is straight, mm. */
const STRAIGHT = 1e-3;

/** Chords of a loop stay this near to it, mm, so that it comes out as true arcs. */
const CHORD = 0.003;

/** How much further than its radius from the next ring a place lies that the bit could only reach by a slot. */
const BEYOND = 1.05;

/**
 * Opens a pocket with loops along its medial axis wherever the innermost ring there would be a slot as wide as the bit:
 * each loop takes off one step, and the ring then finds room on its inner side.
 *
 * @param region a connected part of the first ring's area, in which the bit's middle may be.
 * @param levels rings by level, the outermost first, as `ringLevels` returns them.
 * @param wood where there is still wood; without it, everywhere.
 * @returns tracks at height 0, each with a first ring that is a loop to go down along; none where there is no room to
 *   turn.
 * @example a pocket 100 × 20 mm for a 6 mm bit: loops of 1.5 mm radius along its middle line, one every step
 */
export function openingsIn(region: Region, levels: readonly Loops[], settings: OpeningSettings, wood?: Loops): Track[] {
  const tracks = spinesOf(region, levels, settings, wood).flatMap(({ x, y, fresh }) => {
    const builder = new LoopBuilder(settings);
    builder.loop(x[0], y[0], 1, 0);
    const ring = builder.count;
    if (ring === 0) return [];
    for (let i = 1; i < x.length; i++) {
      if (fresh[i]) builder.along(x[i - 1], y[i - 1], x[i], y[i]);
      else builder.back(x[i], y[i]);
    }
    return [{ xyz: Float64Array.from(builder.points), closed: false, ring, oneWay: true }];
  });
  if (tracks.length === 0) return tracks;
  // A slot is the lesser evil than a loop through a wall, should an axis ever lead there.
  const edge = Clearance.ofLoops(region.loops);
  const sides = new Sides(region.loops);
  const legal = (x: number, y: number) => sides.inside(x, y) || edge.at(x, y) <= ROUNDING;
  return tracks.filter(({ xyz }) => {
    for (let i = 0; i < xyz.length; i += 3) {
      if (!legal(xyz[i], xyz[i + 1])) return false;
      if (i === 0) continue;
      // Between its ends a long move may still cross a bend of the wall.
      const [dx, dy] = [xyz[i] - xyz[i - 3], xyz[i + 1] - xyz[i - 2]];
      const pieces = Math.floor(Math.hypot(dx, dy) / (BETWEEN * settings.radius));
      for (let k = 1; k <= pieces; k++)
        if (!legal(xyz[i - 3] + (dx * k) / (pieces + 1), xyz[i - 2] + (dy * k) / (pieces + 1))) return false;
    }
    return true;
  });
}

/** As `openingsIn`, along a straight line. */
export function openingAlong(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  settings: OpeningSettings,
): Track | undefined {
  const length = Math.hypot(bx - ax, by - ay);
  const builder = new LoopBuilder(settings);
  builder.loop(ax, ay, (bx - ax) / (length || 1), (by - ay) / (length || 1));
  const ring = builder.count;
  if (ring === 0) return undefined;
  builder.along(ax, ay, bx, by);
  return { xyz: Float64Array.from(builder.points), closed: false, ring, oneWay: true };
}

/** Lays loops along a line; from one to the next it goes by their rear, or where that is not safe along the line itself. */
class LoopBuilder {
  readonly points: number[] = [];
  /** Way gone since the last loop, and the corners of the line passed on it. */
  private since = 0;
  private passed: [number, number][] = [];
  /** Middle and radius of the last loop; a radius of 0 means that the bit stands on the line. */
  private last = { x: 0, y: 0, r: 0 };

  constructor(private readonly settings: OpeningSettings) {}

  get count(): number {
    return this.points.length / 3;
  }

  private to(x: number, y: number): void {
    this.points.push(x, y, 0);
  }

  /** Along the line without loops, over what is cleared already. */
  back(x: number, y: number): void {
    if (this.last.r > 0) this.to(this.last.x, this.last.y);
    for (const [px, py] of this.passed) this.to(px, py);
    this.passed = [];
    this.to(x, y);
    this.last = { x, y, r: 0 };
    this.since = 0;
  }

  /** A loop round a place, from its rear on; nothing where there is no room. */
  loop(x: number, y: number, ux: number, uy: number): void {
    const { radius, climb, room } = this.settings;
    const wide = Math.min(LOOP * radius, room(x, y));
    const r = wide < SMALLEST * radius ? 0 : wide;
    if (this.count && !this.straightFromLast(x, y, r)) this.back(x, y);
    this.passed = [];
    this.last = { x, y, r };
    if (r === 0) {
      if (this.count) this.to(x, y);
      return;
    }
    checkMoves(this.count, 'step');
    const n = Math.max(12, Math.ceil(Math.PI / Math.acos(1 - CHORD / r)));
    const rear = Math.atan2(-uy, -ux);
    for (let k = 0; k <= n; k++) {
      // Round to the left the wood ahead is on the right, which is climb milling; the end is the start to the last bit.
      const a = rear + ((climb ? 1 : -1) * 2 * Math.PI * (k % n)) / n;
      this.to(x + r * Math.cos(a), y + r * Math.sin(a));
    }
  }

  /** Whether the hull of the last loop and the next is free: the line between is straight, and no narrower than both. */
  private straightFromLast(x: number, y: number, r: number): boolean {
    const { last, passed } = this;
    const narrow = Math.min(last.r, r);
    const [dx, dy] = [x - last.x, y - last.y];
    const length = Math.hypot(dx, dy);
    return passed.every(([px, py]) => {
      const off = length > 0 ? Math.abs((px - last.x) * dy - (py - last.y) * dx) / length : Infinity;
      return off < STRAIGHT && this.settings.room(px, py) >= narrow - STRAIGHT;
    });
  }

  along(ax: number, ay: number, bx: number, by: number): void {
    const { step } = this.settings;
    const length = Math.hypot(bx - ax, by - ay);
    if (length === 0) return;
    const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
    let s = step - this.since;
    for (; s <= length; s += step) this.loop(ax + ux * s, ay + uy * s, ux, uy);
    this.since = length - (s - step);
    this.passed.push([bx, by]);
  }
}

interface Spine {
  x: number[];
  y: number[];
  /** 1 where the way to a point is gone for the first time. */
  fresh: number[];
}

/** Walks along those parts of a region’s medial axis that no ring further in leads up to. */
function spinesOf(
  { loops, bounds }: Region,
  levels: readonly Loops[],
  { radius, step }: OpeningSettings,
  wood?: Loops,
): Spine[] {
  if (Math.hypot(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) < 2 * radius) return [];
  const { x, y, r, edges } = medialAxis({ loops, bounds });
  const inner = levels.map((level) => (level.length ? Clearance.ofLoops(level) : undefined));
  const slotted = edges.filter((_, i) => {
    const [a, b] = [edges[i & ~1], edges[i | 1]];
    const [mx, my] = [(x[a] + x[b]) / 2, (y[a] + y[b]) / 2];
    if (wood && !insideArea(wood, mx, my)) return false;
    const next = inner[Math.floor((r[a] + r[b]) / 2 / step) + 1];
    return !next || next.at(mx, my) > BEYOND * radius;
  });
  const kept = withoutTwigs(x, y, slotted, radius);
  const { start, incident } = incidence(x.length, kept, kept.length / 2);
  const degree = (n: number) => start[n + 1] - start[n];
  const used = new Uint8Array(kept.length / 2);
  const unused = (n: number) => {
    for (let k = start[n]; k < start[n + 1]; k++) if (!used[incident[k]]) return incident[k];
    return -1;
  };
  const walkFrom = (first: number): Spine => {
    const out: Spine = { x: [x[first]], y: [y[first]], fresh: [1] };
    const stack = [first];
    let useful = 1;
    while (stack.length) {
      const n = stack[stack.length - 1];
      const onward = unused(n);
      const to = onward < 0 ? stack[stack.length - 2] : kept[2 * onward] + kept[2 * onward + 1] - n;
      if (onward < 0) stack.pop();
      else {
        used[onward] = 1;
        stack.push(to);
      }
      if (to === undefined) break;
      out.x.push(x[to]);
      out.y.push(y[to]);
      const length = out.fresh.push(onward < 0 ? 0 : 1);
      if (onward >= 0) useful = length;
    }
    // The way back after the last new place leads nowhere.
    return { x: out.x.slice(0, useful), y: out.y.slice(0, useful), fresh: out.fresh.slice(0, useful) };
  };
  const spines: Spine[] = [];
  // Ends first: from there a line is gone along once.
  for (const ends of [true, false])
    for (let n = 0; n < x.length; n++) if ((degree(n) === 1 || !ends) && unused(n) >= 0) spines.push(walkFrom(n));
  // Where the bit is buried for less than its own width it is in a corner, not in a slot.
  return spines.filter((spine) => lengthOfSpine(spine) >= 2 * radius);
}

function lengthOfSpine({ x, y, fresh }: Spine): number {
  let length = 0;
  for (let i = 1; i < x.length; i++) if (fresh[i]) length += Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  return length;
}

/** Edges of a graph without the branches from an end to a junction that are shorter than `least`. */
function withoutTwigs(x: Float64Array, y: Float64Array, edges: Uint32Array, least: number): Uint32Array {
  const count = edges.length / 2;
  const { start, incident } = incidence(x.length, edges, count);
  const gone = new Uint8Array(count);
  for (let n = 0; n < x.length; n++) {
    if (start[n + 1] - start[n] !== 1) continue;
    const way: number[] = [];
    let length = 0;
    let here = n;
    let e = incident[start[n]];
    for (;;) {
      way.push(e);
      const next = edges[2 * e] === here ? edges[2 * e + 1] : edges[2 * e];
      length += Math.hypot(x[here] - x[next], y[here] - y[next]);
      here = next;
      if (start[here + 1] - start[here] !== 2) break;
      e = incident[start[here]] === e ? incident[start[here] + 1] : incident[start[here]];
    }
    if (length < least && start[here + 1] - start[here] > 2) for (const edge of way) gone[edge] = 1;
  }
  return edges.filter((_, i) => !gone[i >> 1]);
}
