import { ArcLength } from '../geometry/arc-length.ts';
import { contains } from '../geometry/outline.ts';
import Flatbush from 'flatbush';
import { ClosePoints } from './close-points.ts';
import type { KerfLoop } from './kerf-loops.ts';

/** A way into a loop and out of it, on the side that is thrown away. */
export interface ScrapLead {
  /** How far along the loop it begins, mm. */
  start: number;
  /** Points from where it is pierced to the loop, and from it; x and y in turn, without the loop’s own point. */
  in: number[];
  out: number[];
  /** How much of the length asked for it has, 0 to 1; at 0 the loop is pierced on its own line. */
  share: number;
}

export interface LeadSettings {
  lead: { kind: 'none' | 'line' | 'arc'; length: number };
  /** How far it goes on beside a part's outside after the last corner, mm. */
  out: number;
  kerf: number;
  /** The least that a lead goes straight at its beginning, mm: controllers swing out on a straight move. */
  straight?: number;
  keptOnRight: boolean;
  /** Where to start, on the sheet: each loop at its point nearest to one of these, where it is nearest to that loop. */
  starts: readonly { x: number; y: number }[];
  /** Open lines that are cut, too; x and y in turn. */
  lines?: readonly ArrayLike<number>[];
  /** The sheet, mm; nothing is pierced beside it. */
  sheet: { length: number; width: number };
}

/** Shares of the length that are tried, the longest first. */
const SHARES = [1, 0.75, 0.5, 0.35, 0.22];
/** Stretches of a loop that are tried by their middles, the straightest first, and places spread along it besides. */
const STRETCHES = 6;
const SPREAD = 12;
/** Chords of an arc stay this close to it, mm: arcs are found again in them. */
const CHORD = 0.002;
/** So near to its end a lead is looked at closely, and it may be so far beyond its wall there, mm: rounding. */
const MEETS = 1;
const INTO = 0.004;
/** Room that leads keep from other lines even where no kerf is said, mm. */
const LEAST_ROOM = 0.5;
/** How near a lead may come to a wall, as a share of what a straight wall beside it leaves. */
const BENT = 0.35;

/**
 * Where each loop is pierced and how the torch comes to it: in the scrap, clear of every other line and of all leads laid
 * before. Where there is no room the lead shrinks, to nothing at last.
 *
 * @param pieces in how many pieces each is cut, evenly; one lead for each.
 * @returns for each loop its leads, in the order in which they are come to.
 * @example a square with room all round, an arc of 4 mm: pierced 4 mm beside the middle of a side and 4 mm before it
 */
export function scrapLeads(loops: readonly KerfLoop[], settings: LeadSettings, pieces = 1): ScrapLead[][] {
  if (loops.length === 0) return [];
  const edges = new Edges(loops, settings.lines);
  const laid = new ClosePoints(Math.max(settings.kerf, 0.1));
  const measured = loops.map(({ points }) => new ArcLength(points));
  const chosen = startsOf(measured, settings.starts);
  return loops.map((loop, k) => {
    const along = measured[k];
    const find = (places: readonly number[], shares: readonly number[]): ScrapLead | undefined => {
      for (const share of shares)
        for (const start of places) {
          const lead = leadAt(along, start, share, settings);
          if (clear(lead.in, loop, along.pointAt(start), edges, laid, settings)) return lead;
        }
      return undefined;
    };
    const shares = settings.lead.kind === 'none' ? [] : SHARES;
    const out: ScrapLead[] = [];
    for (let piece = 0; piece < pieces; piece++) {
      let places: number[];
      if (piece === 0) places = chosen[k].length > 0 ? chosen[k] : placesOn(along);
      else {
        const wanted = out[0].start + (piece * along.total) / pieces;
        places = [0, 0.05, -0.05, 0.1, -0.1, 0.2, -0.2].map((off) => along.wrap(wanted + (off * along.total) / pieces));
      }
      const lead = find(places, shares) ?? { start: along.wrap(places[0]), in: [], out: [], share: 0 };
      if (loop.scrapInside || pieces > 1 || settings.out === 0) lead.out = [];
      else lead.out = leadOut(loop, along, lead, edges, laid, settings);
      const { x, y } = along.pointAt(lead.start);
      for (const points of [lead.in, lead.out].map((way) => between(way, x, y, Math.max(settings.kerf, 0.1))))
        for (let i = 0; i < points.length; i += 2) laid.add(points[i], points[i + 1]);
      out.push(lead);
    }
    return out;
  });
}

/** Places chosen by hand, each for the loop that it is nearest to: distances along that loop. */
function startsOf(measured: readonly ArcLength[], places: readonly { x: number; y: number }[]): number[][] {
  const out = measured.map((): number[] => []);
  for (const { x, y } of places) {
    let best = -1;
    let least = Infinity;
    let at = 0;
    measured.forEach((along, k) => {
      const s = along.nearest(x, y);
      const on = along.pointAt(s);
      const off = Math.hypot(on.x - x, on.y - y);
      if (off < least) [best, least, at] = [k, off, s];
    });
    if (best >= 0) out[best].push(at);
  }
  return out;
}

/** The middles of its longest straight stretches, and places spread along it. */
function placesOn({ at, total }: ArcLength): number[] {
  const stretches = Array.from({ length: at.length - 1 }, (_, i) => i)
    .sort((a, b) => at[b + 1] - at[b] - (at[a + 1] - at[a]) || a - b)
    .slice(0, STRETCHES);
  return [
    ...stretches.map((i) => (at[i] + at[i + 1]) / 2),
    ...Array.from({ length: SPREAD }, (_, k) => ((k + 0.5) * total) / SPREAD),
  ];
}

/** A lead of a share of the length asked for, whether there is room for it or not. */
function leadAt(
  along: ArcLength,
  start: number,
  share: number,
  { lead, straight = 0, keptOnRight }: LeadSettings,
): ScrapLead {
  const { x, y, dx, dy } = along.pointAt(start);
  const side = keptOnRight ? 1 : -1;
  const [nx, ny] = [-dy * side, dx * side];
  const r = lead.length * share;
  const points: number[] = [];
  if (lead.kind === 'line' || r < straight)
    // At 45° to the line, so that its end runs into the cut.
    points.push(x + r * Math.SQRT1_2 * (nx - dx), y + r * Math.SQRT1_2 * (ny - dy));
  else {
    if (straight > 0) points.push(x - r * dx + (r + straight) * nx, y - r * dy + (r + straight) * ny);
    for (let n = chords(r, Math.PI / 2), k = 0; k < n; k++) {
      const a = (Math.PI / 2) * (1 - k / n);
      const [back, off] = [r * Math.sin(a), r * (1 - Math.cos(a))];
      points.push(x - back * dx + off * nx, y - back * dy + off * ny);
    }
  }
  return { start, in: points, out: [], share };
}

/** How many chords an arc takes. */
const chords = (radius: number, turn: number): number => Math.max(2, Math.ceil(turn / (2 * Math.acos(Math.max(0, 1 - CHORD / radius))))); // prettier-ignore

/** Points along a lead to its end at (x, y), no further apart than a step; without that end. */
function between(points: readonly number[], x: number, y: number, step: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const [bx, by] = i + 2 < points.length ? [points[i + 2], points[i + 3]] : [x, y];
    const pieces = Math.max(1, Math.ceil(Math.hypot(bx - points[i], by - points[i + 1]) / step));
    for (let k = 0; k < pieces; k++)
      out.push(points[i] + ((bx - points[i]) * k) / pieces, points[i + 1] + ((by - points[i + 1]) * k) / pieces);
  }
  return out;
}

/** Whether a way to a place of a loop lies in the scrap, clear of all lines and leads. */
function clear(
  points: readonly number[],
  loop: KerfLoop,
  { x, y, dx, dy }: { x: number; y: number; dx: number; dy: number },
  edges: Edges,
  laid: ClosePoints,
  { kerf, sheet }: LeadSettings,
): boolean {
  const all = between(points, x, y, Math.max(0.1, Math.min(kerf / 2, 0.5)));
  const room = Math.max(kerf, LEAST_ROOM);
  for (let i = 0; i < all.length; i += 2) {
    const [px, py] = [all[i], all[i + 1]];
    if (px < kerf / 2 || py < kerf / 2 || px > sheet.length - kerf / 2 || py > sheet.width - kerf / 2) return false;
    // How far a straight wall along the way would be off.
    const off = Math.abs((px - x) * dy - (py - y) * dx);
    const { own, other } = edges.near(px, py, room, loop);
    // Its own wall is left as it leads away from it; of all others it keeps a kerf.
    if (own < Math.min(room, BENT * off) || other < room) return false;
    if (laid.near(px, py)) return false;
    // Nowhere on the way does it cross its wall, so where it begins tells for all of it.
    if (i === 0 && off > 1e-6 && contains(loop.points, px, py) !== loop.scrapInside) return false;
  }
  // Where it meets a wall that is not quite straight it must not cut into it.
  const last = between(points, x, y, MEETS / 10);
  for (let i = Math.max(0, last.length - 20); i < last.length; i += 2) {
    const [px, py] = [last[i], last[i + 1]];
    if (contains(loop.points, px, py) !== loop.scrapInside && edges.near(px, py, room, loop).own > INTO) return false;
  }
  return true;
}

/** The moves of all loops and of open lines, found by place. */
class Edges {
  private readonly index: Flatbush;
  private readonly ends: Float64Array;
  private readonly owners: readonly (KerfLoop | undefined)[];

  constructor(loops: readonly KerfLoop[], lines: readonly ArrayLike<number>[] = []) {
    const n =
      loops.reduce((sum, { points }) => sum + points.length / 2, 0) +
      lines.reduce((sum, points) => sum + points.length / 2 - 1, 0);
    this.index = new Flatbush(n);
    this.ends = new Float64Array(4 * n);
    const owners: (KerfLoop | undefined)[] = [];
    const add = (points: ArrayLike<number>, j: number, i: number, owner?: KerfLoop) => {
      const [ax, ay, bx, by] = [points[j], points[j + 1], points[i], points[i + 1]];
      this.ends.set([ax, ay, bx, by], 4 * owners.length);
      owners.push(owner);
      this.index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
    };
    for (const loop of loops) {
      const { points } = loop;
      for (let m = points.length, i = 0, j = m - 2; i < m; j = i, i += 2) add(points, j, i, loop);
    }
    for (const points of lines) for (let i = 2; i < points.length; i += 2) add(points, i - 2, i);
    this.index.finish();
    this.owners = owners;
  }

  /** Distances from a place to a loop and to the nearest of all others, mm; further than `within` they are only known to be. */
  near(x: number, y: number, within: number, loop: KerfLoop): { own: number; other: number } {
    let [own, other] = [Infinity, Infinity];
    const { ends } = this;
    for (const k of this.index.search(x - within, y - within, x + within, y + within)) {
      const [ax, ay] = [ends[4 * k], ends[4 * k + 1]];
      const [dx, dy] = [ends[4 * k + 2] - ax, ends[4 * k + 3] - ay];
      const l2 = dx * dx + dy * dy;
      const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
      const d = Math.hypot(x - ax - t * dx, y - ay - t * dy);
      if (this.owners[k] === loop) own = Math.min(own, d);
      else other = Math.min(other, d);
    }
    return { own, other };
  }
}

/** The way out beside a part's outside: as the way in, turned round; shorter where there is no room, or none. */
function leadOut(
  loop: KerfLoop,
  along: ArcLength,
  { start }: ScrapLead,
  edges: Edges,
  laid: ClosePoints,
  settings: LeadSettings,
): number[] {
  const { x, y, dx, dy } = along.pointAt(start);
  const side = settings.keptOnRight ? 1 : -1;
  const [nx, ny] = [-dy * side, dx * side];
  for (const share of SHARES) {
    const r = settings.out * share;
    const points: number[] = [];
    const n = chords(r, Math.PI / 4);
    for (let k = 1; k <= n; k++) {
      const a = ((Math.PI / 4) * k) / n;
      points.push(x + r * Math.sin(a) * dx + r * (1 - Math.cos(a)) * nx, y + r * Math.sin(a) * dy + r * (1 - Math.cos(a)) * ny); // prettier-ignore
    }
    const reversed = Array.from({ length: n }, (_, k) => points.slice(2 * (n - 1 - k), 2 * (n - k))).flat();
    if (clear(reversed, loop, { x, y, dx, dy }, edges, laid, settings)) return points;
  }
  return [];
}
