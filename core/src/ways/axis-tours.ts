import Flatbush from 'flatbush';
import { incidence } from '../geometry/incidence.ts';
import type { Track } from '../motion/track.ts';
import { grooveRoute } from './groove-route.ts';

/** Lines to be gone along once, as a graph: nodes in mm and pairs of their numbers. */
export interface Lines {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  edges: Uint32Array;
}

/** Ways along lines: short ones there and back from where the bit passes anyway, the others as tracks of their own. */
export interface Tours {
  /** x, y of a way that ends where it begins. */
  tours: Float64Array[];
  /** x, y of open ways. */
  ways: Float64Array[];
}

/**
 * Divides lines into what is worth going there and back from a neighbouring track, and what is better gone along by
 * itself.
 *
 * @param root how near a node is to where the bit passes anyway, mm: a tour begins at the nearest; Infinity for never.
 * @param longest the longest connected lines that are gone there and back, mm in all.
 * @example a line of two nodes 1 mm apart and a longest of 5: one tour of three points
 */
export function toursAlong({ x, y, edges }: Lines, root: (node: number) => number, longest: number): Tours {
  const out: Tours = { tours: [], ways: [] };
  const count = edges.length / 2;
  const { start, incident } = incidence(x.length, edges, count);
  const other = (e: number, n: number) => edges[2 * e] + edges[2 * e + 1] - n;
  const long = Float64Array.from({ length: count }, (_, e) =>
    Math.hypot(x[edges[2 * e]] - x[edges[2 * e + 1]], y[edges[2 * e]] - y[edges[2 * e + 1]]),
  );
  const part = new Int32Array(x.length).fill(-1);
  for (let first = 0; first < x.length; first++) {
    if (part[first] >= 0 || start[first + 1] === start[first]) continue;
    const nodes = [first];
    part[first] = first;
    for (let k = 0; k < nodes.length; k++)
      for (let i = start[nodes[k]]; i < start[nodes[k] + 1]; i++) {
        const next = other(incident[i], nodes[k]);
        if (part[next] >= 0) continue;
        part[next] = first;
        nodes.push(next);
      }
    const own = [...new Set(nodes.flatMap((n) => Array.from(incident.subarray(start[n], start[n + 1]))))];
    const total = own.reduce((sum, e) => sum + long[e], 0);
    let [best, nearest] = [nodes[0], Infinity];
    for (const n of nodes) {
      const d = root(n);
      if (d < nearest) [best, nearest] = [n, d];
    }
    // A point, or lines without a circle, that something passes: there and back.
    if (nearest < Infinity && total <= longest && own.length < nodes.length + (own.length === 1 ? 1 : 0))
      out.tours.push(thereAndBack(best));
    else {
      const graph = Uint32Array.from(own.flatMap((e) => [edges[2 * e], edges[2 * e + 1]]));
      const cost = Float64Array.from(own, (e) => long[e]);
      for (const walk of grooveRoute(x.length, graph, cost, Infinity))
        out.ways.push(Float64Array.from(Array.from(walk).flatMap((n) => [x[n], y[n]])));
    }
  }
  return out;

  function thereAndBack(from: number): Float64Array {
    const points = [x[from], y[from]];
    const used = new Set<number>();
    const stack = [from];
    while (stack.length) {
      const n = stack[stack.length - 1];
      let onward = -1;
      for (let i = start[n]; i < start[n + 1]; i++)
        if (!used.has(incident[i]) && edges[2 * incident[i]] !== edges[2 * incident[i] + 1]) onward = incident[i];
      if (onward >= 0) {
        used.add(onward);
        stack.push(other(onward, n));
      } else stack.pop();
      const at = stack[stack.length - 1];
      if (at !== undefined) points.push(x[at], y[at]);
    }
    return Float64Array.from(points);
  }
}

/**
 * Puts tours into the tracks that pass nearest to them: the track leaves its own line there, goes round the tour, and
 * comes back. Where no track passes within reach a tour is a track of its own.
 *
 * @param tracks flat, all at one height.
 * @param within farthest a tour may begin from a track, mm.
 */
export function graft(tracks: readonly Track[], tours: readonly Float64Array[], within: number): Track[] {
  if (tours.length === 0) return [...tracks];
  const index: [track: number, segment: number][] = [];
  tracks.forEach(({ xyz }, track) => {
    for (let s = 0; s + 5 < xyz.length; s += 3) index.push([track, s]);
  });
  const bush = new Flatbush(Math.max(1, index.length));
  for (const [track, s] of index) {
    const [ax, ay, , bx, by] = tracks[track].xyz.subarray(s, s + 6);
    bush.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  }
  if (index.length === 0) bush.add(Infinity, Infinity, Infinity, Infinity);
  bush.finish();
  const grafts: { track: number; segment: number; share: number; tour: Float64Array }[] = [];
  const alone: Track[] = [];
  for (const tour of tours) {
    const [x, y] = tour;
    let best: { track: number; segment: number; share: number } | undefined;
    let nearest = within;
    for (const found of bush.search(x - within, y - within, x + within, y + within)) {
      if (!index.length) break;
      const [track, segment] = index[found];
      const [ax, ay, , bx, by] = tracks[track].xyz.subarray(segment, segment + 6);
      const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
      const share = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l2)) : 0;
      const d = Math.hypot(x - ax - share * (bx - ax), y - ay - share * (by - ay));
      if (d <= nearest) [best, nearest] = [{ track, segment, share }, d];
    }
    if (best) grafts.push({ ...best, tour });
    else alone.push({ xyz: lifted(tour, tracks[0]?.xyz[2] ?? 0), closed: false, ring: 0, oneWay: true });
  }
  const byTrack = new Map<number, typeof grafts>();
  for (const one of grafts) byTrack.set(one.track, [...(byTrack.get(one.track) ?? []), one]);
  const out = tracks.map((track, k) => {
    const own = byTrack.get(k);
    if (!own) return track;
    own.sort((a, b) => a.segment - b.segment || a.share - b.share);
    const { xyz } = track;
    const points: number[] = [];
    let { ring } = track;
    for (let s = 0, next = 0; s < xyz.length; s += 3) {
      points.push(xyz[s], xyz[s + 1], xyz[s + 2]);
      for (; next < own.length && own[next].segment === s; next++) {
        const { share, tour } = own[next];
        const [px, py] = [xyz[s] + share * (xyz[s + 3] - xyz[s]), xyz[s + 1] + share * (xyz[s + 4] - xyz[s + 1])];
        const from = points.length;
        points.push(px, py, xyz[s + 2], ...lifted(tour, xyz[s + 2]), px, py, xyz[s + 2]);
        if (s / 3 + 1 < track.ring) ring += (points.length - from) / 3;
      }
    }
    return { ...track, xyz: Float64Array.from(points), ring };
  });
  return [...out, ...alone];
}

function lifted(line: ArrayLike<number>, z: number): Float64Array {
  const out = new Float64Array((line.length / 2) * 3);
  for (let i = 0, j = 0; i < line.length; i += 2, j += 3) {
    out[j] = line[i];
    out[j + 1] = line[i + 1];
    out[j + 2] = z;
  }
  return out;
}
