import Delaunator from 'delaunator';
import { Clearance } from './clearance.ts';
import type { Region } from './regions.ts';

/**
 * The medial axis of a region: the centres of all circles that touch its outline in two places or more.
 * Blum 1967 (the axis); the Voronoi diagram of outline samples as its approximation, then every node moved onto the
 * bisector of its true nearest features.
 */
export interface MedialAxis {
  /** Nodes: centre and radius of a touching circle, mm. */
  x: Float64Array;
  y: Float64Array;
  r: Float64Array;
  /** Pairs of node numbers; a disc, whose axis is one point, has one pair of the same node twice. */
  edges: Uint32Array;
  /** Distances to this region's outline. */
  clearance: Clearance;
}

/**
 * Loss of carved depth (times tan α) below which a branch is dropped, mm. Three times the flattening tolerance: less
 * would keep branches that only follow flattening noise, more would blunt corners visibly.
 */
export const PRUNING_TOLERANCE = 0.006;

/** A convex corner that turns more than this (radians) gets its axis drawn right into the point. */
const CORNER_TURN = (12 * Math.PI) / 180;

/** How far the disc between two nodes may reach over the outline, mm, before a node is put between them. */
const SPAN_TOLERANCE = 0.002;

/** Sample distance as a share of the region's size, and its bounds, mm: fine enough that neighbours are always seen. */
const COARSE_SHARE = 0.015;
const FINEST_SAMPLE = 0.03;
const COARSEST_SAMPLE = 0.5;

export class MedialAxisError extends Error {
  override name = 'MedialAxisError';
}

/**
 * Computes the medial axis inside a region.
 * @throws {MedialAxisError} when the outline cannot be triangulated (it touches or crosses itself).
 * @example a 10 × 4 rectangle: a middle line from (2, 2) to (8, 2) at radius 2 and four branches into the corners.
 */
export function medialAxis(region: Region): MedialAxis {
  const { minX, minY, maxX, maxY } = region.bounds;
  const size = Math.hypot(maxX - minX, maxY - minY);
  const spacing = Math.min(COARSEST_SAMPLE, Math.max(FINEST_SAMPLE, size * COARSE_SHARE));
  const clearance = new Clearance(region.loops);
  let samples = sample(region, spacing);
  for (let round = 0; ; round++) {
    const delaunay = new Delaunator(samples.xy);
    const missing = missingEdges(delaunay, samples);
    if (missing.length === 0) return axisFrom(delaunay, samples, clearance);
    if (round >= 12)
      throw new MedialAxisError(
        'An outline touches or crosses itself where it should not; mend it where it was drawn.',
      );
    samples = split(samples, missing);
  }
}

interface Samples {
  xy: Float64Array;
  /** The next sample on the same loop. */
  next: Uint32Array;
  /** 1 where the sample is a sharp convex corner. */
  corner: Uint8Array;
}

function sample(region: Region, spacing: number): Samples {
  const xy: number[] = [];
  const next: number[] = [];
  const corner: number[] = [];
  for (const loop of region.loops) {
    const first = xy.length / 2;
    const n = loop.length / 2;
    const turns = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const p = ((i + n - 1) % n) * 2;
      const q = ((i + 1) % n) * 2;
      const ux = loop[2 * i] - loop[p];
      const uy = loop[2 * i + 1] - loop[p + 1];
      const vx = loop[q] - loop[2 * i];
      const vy = loop[q + 1] - loop[2 * i + 1];
      turns[i] = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
    }
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const ax = loop[2 * i];
      const ay = loop[2 * i + 1];
      const dx = loop[2 * j] - ax;
      const dy = loop[2 * j + 1] - ay;
      const length = Math.hypot(dx, dy);
      xy.push(ax, ay);
      corner.push(turns[i] > CORNER_TURN ? 1 : 0);
      for (const t of stops(length, spacing, turns[i] > CORNER_TURN, turns[j] > CORNER_TURN)) {
        xy.push(ax + (dx * t) / length, ay + (dy * t) / length);
        corner.push(0);
      }
    }
    const end = xy.length / 2;
    for (let k = first; k < end; k++) next.push(k + 1 < end ? k + 1 : first);
  }
  return { xy: Float64Array.from(xy), next: Uint32Array.from(next), corner: Uint8Array.from(corner) };
}

/**
 * Distances along one outline piece where samples go. Both sides of a convex corner are sampled at equal distances
 * from it, growing by half each time, so that the axis runs straight into the corner.
 */
function stops(length: number, spacing: number, cornerAtStart: boolean, cornerAtEnd: boolean): number[] {
  const graded = (limit: number) => {
    const out: number[] = [];
    for (let d = FINEST_SAMPLE, step = FINEST_SAMPLE; d < limit;) {
      out.push(d);
      step = Math.min(step * 1.5, spacing);
      d += step;
    }
    return out;
  };
  const half = length / 2;
  const even = (from: number, to: number) => {
    const n = Math.ceil((to - from) / spacing);
    return Array.from({ length: Math.max(0, n - 1) }, (_, k) => from + ((to - from) * (k + 1)) / n);
  };
  if (!cornerAtStart && !cornerAtEnd) return even(0, length);
  const start = cornerAtStart ? graded(cornerAtEnd ? half : length - spacing / 2) : [];
  const end = cornerAtEnd
    ? graded(cornerAtStart ? half : length - spacing / 2)
        .map((d) => length - d)
        .reverse()
    : [];
  if (cornerAtStart && cornerAtEnd) {
    const a = start.at(-1) ?? 0;
    const b = end[0] ?? length;
    return b - a > 1e-9 ? [...start, ...even(a, b), ...end] : [...start, ...end.slice(1)];
  }
  return [...start, ...end];
}

function missingEdges({ triangles }: Delaunator<Float64Array>, { next }: Samples): number[] {
  const found = new Uint8Array(next.length);
  for (let e = 0; e < triangles.length; e++) {
    const a = triangles[e];
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (next[a] === b) found[a] |= 1;
    if (next[b] === a) found[b] |= 1;
  }
  const missing: number[] = [];
  for (let i = 0; i < found.length; i++) if (!found[i]) missing.push(i);
  return missing;
}

function split(samples: Samples, at: number[]): Samples {
  const n = samples.next.length;
  const xy = new Float64Array(samples.xy.length + at.length * 2);
  const next = new Uint32Array(n + at.length);
  const corner = new Uint8Array(n + at.length);
  xy.set(samples.xy);
  next.set(samples.next);
  corner.set(samples.corner);
  at.forEach((i, k) => {
    const j = samples.next[i];
    const m = n + k;
    xy[2 * m] = (xy[2 * i] + xy[2 * j]) / 2;
    xy[2 * m + 1] = (xy[2 * i + 1] + xy[2 * j + 1]) / 2;
    next[i] = m;
    next[m] = j;
  });
  return { xy, next, corner };
}

function axisFrom(delaunay: Delaunator<Float64Array>, samples: Samples, clearance: Clearance): MedialAxis {
  const { triangles, halfedges } = delaunay;
  const { xy, next, corner } = samples;
  const inside = floodInside(triangles, halfedges, next);
  const node = new Int32Array(inside.length).fill(-1);
  const x: number[] = [];
  const y: number[] = [];
  const edges: number[] = [];
  const add = (px: number, py: number) => {
    x.push(px);
    y.push(py);
    return x.length - 1;
  };
  for (let t = 0; t < inside.length; t++) {
    if (!inside[t]) continue;
    const [cx, cy] = circumcentre(xy, triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]);
    node[t] = add(cx, cy);
  }
  // Across every Delaunay edge inside, a Voronoi edge joins the two circumcentres.
  const across: number[] = [];
  for (let e = 0; e < triangles.length; e++) {
    const o = halfedges[e];
    const t = Math.floor(e / 3);
    if (o < e || !inside[t]) continue;
    const u = Math.floor(o / 3);
    const a = triangles[e];
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (!inside[u] || next[a] === b || next[b] === a) continue;
    edges.push(node[t], node[u]);
    across.push(a, b);
  }
  const radii: number[] = [];
  for (let i = 0; i < x.length; i++) radii.push(0);
  const degree = new Uint8Array(x.length);
  for (const n of edges) degree[n]++;
  for (let k = 0; k < edges.length; k += 2)
    for (const n of [edges[k], edges[k + 1]])
      if (degree[n] <= 2) ontoBisector(n, across[k], across[k + 1], x, y, xy, clearance);
  for (let i = 0; i < x.length; i++) radii[i] = clearance.at(x[i], y[i]);
  // An ear is a triangle with two outline edges; at a corner its axis goes on into the point.
  for (let t = 0; t < inside.length; t++) {
    if (!inside[t]) continue;
    for (let k = 0; k < 3; k++) {
      const before = triangles[3 * t + ((k + 1) % 3)];
      const tip = triangles[3 * t + k];
      const after = triangles[3 * t + ((k + 2) % 3)];
      if (next[before] !== tip || next[tip] !== after || !corner[tip]) continue;
      edges.push(node[t], add(xy[2 * tip], xy[2 * tip + 1]));
      radii.push(0);
    }
  }
  const pruned = prune(x, y, radii, edges);
  if (pruned.length === 0 && radii.length > 0) {
    // A disc: its whole axis is its centre.
    const centre = radii.indexOf(Math.max(...radii));
    pruned.push(centre, centre);
  }
  return refineSpans(x, y, radii, pruned, clearance);
}

/** Which triangles lie inside: those left of an outline edge, and all that can be reached without crossing one. */
function floodInside(triangles: Uint32Array, halfedges: Int32Array, next: Uint32Array): Uint8Array {
  const inside = new Uint8Array(triangles.length / 3);
  const stack: number[] = [];
  for (let e = 0; e < triangles.length; e++) {
    // Triangles of the triangulation run clockwise in a y-up plane, so an outline edge of an inner one is reversed.
    const a = triangles[e];
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (next[b] === a && !inside[Math.floor(e / 3)]) {
      inside[Math.floor(e / 3)] = 1;
      stack.push(Math.floor(e / 3));
    }
  }
  while (stack.length) {
    const t = stack.pop()!;
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const a = triangles[e];
      const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
      if (next[a] === b || next[b] === a || halfedges[e] < 0) continue;
      const u = Math.floor(halfedges[e] / 3);
      if (!inside[u]) {
        inside[u] = 1;
        stack.push(u);
      }
    }
  }
  return inside;
}

function circumcentre(xy: Float64Array, a: number, b: number, c: number): [number, number] {
  const ax = xy[2 * a];
  const ay = xy[2 * a + 1];
  const bx = xy[2 * b] - ax;
  const by = xy[2 * b + 1] - ay;
  const cx = xy[2 * c] - ax;
  const cy = xy[2 * c + 1] - ay;
  const b2 = bx * bx + by * by;
  const c2 = cx * cx + cy * cy;
  const d = 2 * (bx * cy - by * cx);
  if (Math.abs(d) < 1e-300) return [ax + bx / 2, ay + by / 2];
  return [ax + (cy * b2 - by * c2) / d, ay + (bx * c2 - cx * b2) / d];
}

/**
 * Moves a node to the ridge of the clearance along the line across its branch (from one side's sample to the other's),
 * by golden section: on that line the clearance rises to the bisector and falls after it, so the result never gouges.
 */
function ontoBisector(
  n: number,
  a: number,
  b: number,
  x: number[],
  y: number[],
  xy: Float64Array,
  clearance: Clearance,
): void {
  const ax = xy[2 * a];
  const ay = xy[2 * a + 1];
  const dx = xy[2 * b] - ax;
  const dy = xy[2 * b + 1] - ay;
  const across = Math.hypot(dx, dy);
  if (across === 0) return;
  const ux = dx / across;
  const uy = dy / across;
  const x0 = x[n];
  const y0 = y[n];
  const start = clearance.at(x0, y0);
  const reach = Math.min(0.25 * across, 0.2);
  let lo = -reach;
  let hi = reach;
  const golden = (Math.sqrt(5) - 1) / 2;
  let p = hi - golden * (hi - lo);
  let q = lo + golden * (hi - lo);
  let fp = clearance.at(x0 + ux * p, y0 + uy * p);
  let fq = clearance.at(x0 + ux * q, y0 + uy * q);
  for (let i = 0; i < 22; i++) {
    if (fp > fq) {
      hi = q;
      q = p;
      fq = fp;
      p = hi - golden * (hi - lo);
      fp = clearance.at(x0 + ux * p, y0 + uy * p);
    } else {
      lo = p;
      p = q;
      fp = fq;
      q = lo + golden * (hi - lo);
      fq = clearance.at(x0 + ux * q, y0 + uy * q);
    }
  }
  const best = (lo + hi) / 2;
  if (clearance.at(x0 + ux * best, y0 + uy * best) > start) {
    x[n] = x0 + ux * best;
    y[n] = y0 + uy * best;
  }
}

/** Drops branches whose loss stays under the tolerance, from their leaves inwards. Returns the edges that are left. */
function prune(x: number[], y: number[], r: number[], edges: number[]): number[] {
  const incident: number[][] = Array.from(x, () => []);
  for (let e = 0; e < edges.length; e += 2) {
    incident[edges[e]].push(e);
    incident[edges[e + 1]].push(e);
  }
  const gone = new Uint8Array(edges.length / 2);
  const degree = incident.map((list) => list.length);
  const loss = new Float64Array(x.length);
  const queue: number[] = [];
  degree.forEach((d, n) => d === 1 && queue.push(n));
  while (queue.length) {
    const n = queue.pop()!;
    if (degree[n] !== 1) continue;
    const e = incident[n].find((k) => !gone[k / 2])!;
    const m = edges[e] === n ? edges[e + 1] : edges[e];
    const length = Math.hypot(x[n] - x[m], y[n] - y[m]);
    const lost = loss[n] + Math.max(0, length - (r[m] - r[n]));
    if (lost >= PRUNING_TOLERANCE) continue;
    gone[e / 2] = 1;
    degree[n]--;
    degree[m]--;
    loss[m] = Math.max(loss[m], lost);
    if (degree[m] === 1) queue.push(m);
  }
  return edges.filter((_, i) => !gone[Math.floor(i / 2)]);
}

/** Puts nodes between neighbours wherever the disc halfway would reach over the outline. */
function refineSpans(x: number[], y: number[], r: number[], edges: number[], clearance: Clearance): MedialAxis {
  const out: number[] = [];
  const stack: [number, number, number][] = [];
  for (let e = 0; e < edges.length; e += 2) {
    stack.push([edges[e], edges[e + 1], 0]);
    while (stack.length) {
      const [a, b, depth] = stack.pop()!;
      if (a === b) {
        out.push(a, b);
        continue;
      }
      const mx = (x[a] + x[b]) / 2;
      const my = (y[a] + y[b]) / 2;
      const here = clearance.at(mx, my);
      const off = (r[a] + r[b]) / 2 - here;
      if (depth < 8 && Math.abs(off) > SPAN_TOLERANCE) {
        x.push(mx);
        y.push(my);
        r.push(here);
        stack.push([a, x.length - 1, depth + 1], [x.length - 1, b, depth + 1]);
      } else out.push(a, b);
    }
  }
  return {
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    r: Float64Array.from(r),
    edges: Uint32Array.from(out),
    clearance,
  };
}
