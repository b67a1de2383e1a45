import Flatbush from 'flatbush';
import { incidence } from '../geometry/incidence.ts';
import type { Loops } from '../geometry/clipper.ts';
import { Clearance } from '../geometry/clearance.ts';
import { medialAxis } from '../geometry/medial-axis.ts';
import { insideArea } from '../geometry/stretches.ts';
import { regionsOf } from '../geometry/regions.ts';
import { type Tours, toursAlong } from './axis-tours.ts';

/** Branches of a rough round into corners that are longer in all than so many diameters are tracks of their own. */
export const LONGEST_SPUR = 2;

/** How far from the rough round by rounding what begins on it may lie, mm. */
export const ON_ROUND = 0.01;

/** Branches shorter than this share of the finish allowance clear nothing that a finish round would feel. */
const WORTH_GOING = 0.05;

/**
 * Where a finish allowance leaves no room for a rough round: narrow places and sharp corners. Gone along their middle
 * at every depth, what is left there for the finish round is no more than the allowance, too.
 *
 * @param centres where the bit's middle may be, as `Clipper.offset` returns it.
 * @param finish allowance, mm.
 * @param longest the longest branches that are gone there and back from the rough round, mm.
 * @returns tours that begin on the rough round, and open ways.
 * @example a square 10 mm wide and an allowance of 0.2: four tours of 0.08 mm into the corners
 */
export function tightPlaces(centres: Loops, finish: number, longest: number): Tours {
  const out: Tours = { tours: [], ways: [] };
  for (const region of regionsOf(centres)) {
    const axis = medialAxis(region);
    const x = [...axis.x];
    const y = [...axis.y];
    const r = [...axis.r];
    const open: number[] = [];
    const wide = new Set<number>();
    for (let e = 0; e < axis.edges.length; e += 2) {
      let [a, b] = [axis.edges[e], axis.edges[e + 1]];
      if (axis.r[a] > axis.r[b]) [a, b] = [b, a];
      if (axis.r[a] >= finish) continue;
      if (axis.r[b] >= finish) {
        const t = (finish - axis.r[a]) / (axis.r[b] - axis.r[a]);
        x.push(axis.x[a] + t * (axis.x[b] - axis.x[a]));
        y.push(axis.y[a] + t * (axis.y[b] - axis.y[a]));
        r.push(finish);
        b = x.length - 1;
        wide.add(b);
      }
      open.push(a, b);
    }
    if (open.length === 0) continue;
    toSharpEnds(region.loops, x, y, r, open, wide, finish);
    const { x: kx, y: ky, edges } = withoutTips(x, y, r, Uint32Array.from(open), wide, finish);
    if (edges.length === 0) continue;
    const { tours, ways } = toursAlong({ x: kx, y: ky, edges }, (node) => (wide.has(node) ? 0 : Infinity), longest);
    out.tours.push(...tours);
    out.ways.push(...ways);
  }
  return out;
}

/** What turns by more than this is a sharp corner, radians. */
const SHARP = 2.4;

/** The point of a corner of one degree is so many radii of its circle away; that of two arcs that touch may be farther. */
const FARTHEST = 115;

/** How far beside the axis’ last direction its corner’s point may lie, as a share of the way there. */
const ASIDE = 0.1;

/** A line to a corner’s point may leave the place by so much, mm. */
const OUTSIDE = 0.004;

/**
 * An axis leaves off some micrometres before the outline, which in a sharp corner is far from its point: there a line
 * is led on to it.
 */
function toSharpEnds(
  loops: Loops,
  x: number[],
  y: number[],
  r: number[],
  edges: number[],
  wide: ReadonlySet<number>,
  finish: number,
): void {
  const met = new Map<number, number[]>();
  for (let e = 0; e < edges.length; e += 2)
    for (const [n, m] of [
      [edges[e], edges[e + 1]],
      [edges[e + 1], edges[e]],
    ])
      met.set(n, [...(met.get(n) ?? []), m]);
  const sharp: [number, number][] = [];
  for (const loop of loops)
    for (let i = 0; i < loop.length; i += 2) {
      const [p, q] = [(i + loop.length - 2) % loop.length, (i + 2) % loop.length];
      const [ux, uy, vx, vy] = [
        loop[i] - loop[p],
        loop[i + 1] - loop[p + 1],
        loop[q] - loop[i],
        loop[q + 1] - loop[i + 1],
      ];
      if (Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) > SHARP) sharp.push([loop[i], loop[i + 1]]);
    }
  if (sharp.length === 0) return;
  const edge = Clearance.ofLoops(loops);
  const index = new Flatbush(sharp.length);
  for (const [px, py] of sharp) index.add(px, py, px, py);
  index.finish();
  for (const [n, [m, ...others]] of met) {
    if (others.length > 0 || wide.has(n) || r[n] === 0) continue;
    const [ux, uy] = [x[n] - x[m], y[n] - y[m]];
    const long = Math.hypot(ux, uy);
    const point = index.neighbors(x[n], y[n], 1, Math.max(FARTHEST * r[n], finish), (k) => {
      const [dx, dy] = [sharp[k][0] - x[n], sharp[k][1] - y[n]];
      const along = (dx * ux + dy * uy) / long;
      return along > 0 && Math.abs(dx * uy - dy * ux) / long < 2 * r[n] + ASIDE * along;
    })[0];
    if (point === undefined) continue;
    const [px, py] = sharp[point];
    // Beside a round wall the way to the point bends, and a straight one leaves the place by less than the place is wide.
    const led = [0.25, 0.5, 0.75].every((t) => {
      const [mx, my] = [x[n] + t * (px - x[n]), y[n] + t * (py - y[n])];
      return insideArea(loops, mx, my) || edge.at(mx, my) <= Math.min(r[n], OUTSIDE);
    });
    if (!led) continue;
    edges.push(n, x.length);
    x.push(px);
    y.push(py);
    r.push(0);
  }
}

/**
 * Lines shortened from their free ends by a length; what is shorter as a whole goes, if it hangs on something wide, and
 * is kept as it is where it stands alone.
 */
function withoutTips(
  x: number[],
  y: number[],
  r: number[],
  edges: Uint32Array,
  wide: ReadonlySet<number>,
  length: number,
) {
  const count = edges.length / 2;
  const { start, incident } = incidence(x.length, edges, count);
  const long = (e: number) => Math.hypot(x[edges[2 * e]] - x[edges[2 * e + 1]], y[edges[2 * e]] - y[edges[2 * e + 1]]);
  /** How far the farthest free end behind a node is, once all but one of its edges are known. */
  const behind = new Float64Array(x.length);
  const left = new Int32Array(x.length);
  for (let n = 0; n < x.length; n++) left[n] = start[n + 1] - start[n];
  const done = new Uint8Array(count);
  const kept: number[] = [];
  const queue: number[] = [];
  for (let n = 0; n < r.length; n++)
    if (left[n] === 1 && !wide.has(n)) {
      // The middle of a round end: its edge is so much further.
      behind[n] = r[n];
      queue.push(n);
    }
  for (let k = 0; k < queue.length; k++) {
    const n = queue[k];
    for (let i = start[n]; i < start[n + 1]; i++) {
      const e = incident[i];
      if (done[e]) continue;
      done[e] = 1;
      const m = edges[2 * e] + edges[2 * e + 1] - n;
      const far = behind[n] + long(e);
      if (behind[n] >= length) kept.push(n, m);
      else if (far - length > WORTH_GOING * length) {
        const t = (length - behind[n]) / long(e);
        x.push(x[n] + t * (x[m] - x[n]));
        y.push(y[n] + t * (y[m] - y[n]));
        kept.push(x.length - 1, m);
      }
      behind[m] = Math.max(behind[m], far);
      left[m]--;
      if (left[m] === 1 && !wide.has(m)) queue.push(m);
    }
  }
  for (let e = 0; e < count; e++) if (!done[e]) kept.push(edges[2 * e], edges[2 * e + 1]);
  // Lines that nothing wide leads to and that are gone as a whole are needed after all.
  const group = new Int32Array(x.length).map((_, i) => i);
  const top = (n: number): number => {
    while (group[n] !== n) n = group[n] = group[group[n]];
    return n;
  };
  for (let e = 0; e < count; e++) group[top(edges[2 * e])] = top(edges[2 * e + 1]);
  const fine = new Set<number>();
  for (const n of wide) fine.add(top(n));
  for (const n of kept) if (n < behind.length) fine.add(top(n));
  for (let e = 0; e < count; e++) if (!fine.has(top(edges[2 * e]))) kept.push(edges[2 * e], edges[2 * e + 1]);
  return { x, y, edges: Uint32Array.from(kept) };
}
