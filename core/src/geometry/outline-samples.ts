import { CannotBeCut } from '../schema/cannot-be-cut.ts';
import { OwnFault } from '../schema/own-fault.ts';
import Delaunator from 'delaunator';
import { dropNear, partTouching, type RegionOutline } from './region-outline.ts';

/**
 * Points along a region's outline, dense enough that their Delaunay triangulation holds every piece between
 * neighbours, sees every narrow place, and has an ear at every corner.
 */
export interface Triangulated {
  /** The outline touched itself, and was moved a little where it does. */
  parted: boolean;
  count: number;
  x: Float64Array;
  y: Float64Array;
  /** The next sample on the same loop. */
  next: Int32Array;
  previous: Int32Array;
  /** The outline segment a sample lies on; for a vertex the one that starts there. */
  segment: Int32Array;
  /** The outline vertex a sample is, or −1. */
  vertex: Int32Array;
  triangles: Uint32Array;
  halfedges: Int32Array;
  /** 1 for triangles inside the region. */
  inside: Uint8Array;
  /** Centre of each inside triangle's circle. */
  centreX: Float64Array;
  centreY: Float64Array;
}

/** Largest distance between samples at the start, as a share of the region's size; refined where it matters. */
const COARSE = 0.06;

/** Pieces seen from across under a wider angle than this are split: their axis would be guessed, not found. 75°. */
const WIDE_COSINE = Math.cos((75 * Math.PI) / 180);

/** What turns by less than this is no corner but part of a curve, radians. */
const CORNER_TURN = 0.2;

/** Sides of a corner's ear may differ by this share of the shorter, and in narrow corners by less: see `refine`. */
const UNEVEN = 0.3;

/** Pieces are not split below this, mm: a third of the thinnest stroke a tip can carve. */
const FINEST = 0.03;

/** Vertices are no samples where the outline stays this near to the chord past them, mm, until a piece is refined. */
export const SMOOTH_DEVIATION = 0.012;

/** Most that the outline may turn within one piece, radians: a loop has thirteen pieces or more. */
const SMOOTH_TURN = 0.5;

const ROUNDS = 40;

/** More samples than this take minutes; the largest page of lettering has a tenth in its largest outline. */
const MOST_SAMPLES = 2_000_000;

/** Rounds after which outlines that touch are taken for the reason that pieces are still missing. */
const ROUNDS_BEFORE_PARTING = 12;

/** How far what touches is parted, mm, the least that helps: at most as much as a cut may be off. */
const NUDGES = [0.001, 0.003, 0.01];

/**
 * Samples and triangulates a region.
 * @param least loss of carving, mm, under which a blunt corner needs no ear.
 * @throws {OwnFault} when pieces of the outline cannot be made edges: it crosses itself, which what `Clipper.union` returns
 *   does not. {@link CannotBeCut} where it is so long and thin that it takes minutes.
 */
export function triangulate(outline: RegionOutline, least: number): Triangulated {
  let samples = first(outline);
  let drawn: RegionOutline | undefined;
  let parted = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const found = refine(samples, outline, least);
    if (found) return { ...found, parted: parted > 0 };
    let moved = 0;
    if (round === ROUNDS_BEFORE_PARTING)
      while (moved === 0 && parted < NUDGES.length) {
        // What was parted too little is parted anew, not further: the sum would be more than a cut may be off.
        drawn ??= copied(outline);
        Object.assign(outline, copied(drawn));
        moved = dropNear(outline, NUDGES[parted]);
        moved += partTouching(outline, NUDGES[parted++]);
      }
    if (moved > 0) {
      samples = first(outline);
      round = 0;
    } else samples = split(samples, outline);
  }
  throw new OwnFault(
    'Kerbe could not find the middle line of an outline; that is a fault of Kerbe, not of the drawing, and moving one of its points a little may help.',
  );
}

const copied = (outline: RegionOutline): RegionOutline => ({
  ...outline,
  x: outline.x.slice(),
  y: outline.y.slice(),
});

interface Samples {
  count: number;
  x: Float64Array;
  y: Float64Array;
  next: Int32Array;
  previous: Int32Array;
  segment: Int32Array;
  vertex: Int32Array;
  /** Where the piece after a sample is to be split, mm from the sample; 0 leaves it whole. */
  cut: Float64Array;
}

/** The first samples: vertices, save those that a smooth stretch does without, and points along long segments. */
function first(outline: RegionOutline): Samples {
  const { count, x, y, next, previous, size } = outline;
  const coarse = COARSE * size;
  // How many pieces start at a vertex; 0 where it is passed over.
  const pieces = new Int32Array(count);
  const onward = new Int32Array(count);
  let n = 0;
  for (let start = 0; start < count; start = previous[start] + 1) {
    let i = start;
    do {
      const j = smoothEnd(outline, i, start, coarse);
      const dx = x[j] - x[i];
      const dy = y[j] - y[i];
      onward[i] = j;
      pieces[i] = j === next[i] ? Math.max(1, Math.ceil(Math.sqrt(dx * dx + dy * dy) / coarse)) : 1;
      n += pieces[i];
      i = j;
    } while (i !== start);
  }
  const samples = emptySamples(n);
  const at = new Int32Array(count);
  let k = 0;
  for (let i = 0; i < count; i++) {
    at[i] = k;
    const j = onward[i];
    for (let p = 0; p < pieces[i]; p++, k++) {
      const t = p / pieces[i];
      samples.x[k] = x[i] + t * (x[j] - x[i]);
      samples.y[k] = y[i] + t * (y[j] - y[i]);
      samples.segment[k] = i;
      samples.vertex[k] = p === 0 ? i : -1;
      samples.next[k] = k + 1;
    }
  }
  for (let i = 0; i < count; i++) if (pieces[i] > 0) samples.next[at[i] + pieces[i] - 1] = at[onward[i]];
  for (let i = 0; i < n; i++) samples.previous[samples.next[i]] = i;
  return samples;
}

/** The vertex up to which the outline from vertex `i` may be one piece; `start` ends the loop. */
function smoothEnd({ x, y, next, turn }: RegionOutline, i: number, start: number, longest: number): number {
  let j = next[i];
  let turned = 0;
  while (j !== start) {
    const k = next[j];
    turned -= turn[j];
    if (turn[j] > 0 || turned > SMOOTH_TURN) break;
    const dx = x[k] - x[i];
    const dy = y[k] - y[i];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length > longest) break;
    let off = 0;
    for (let v = next[i]; v !== k; v = next[v]) off = Math.max(off, Math.abs((x[v] - x[i]) * dy - (y[v] - y[i]) * dx));
    if (off > SMOOTH_DEVIATION * length) break;
    j = k;
  }
  return j;
}

function emptySamples(count: number): Samples {
  return {
    count,
    x: new Float64Array(count),
    y: new Float64Array(count),
    next: new Int32Array(count),
    previous: new Int32Array(count),
    segment: new Int32Array(count),
    vertex: new Int32Array(count),
    cut: new Float64Array(count),
  };
}

/** The outline vertex within the piece after sample `i` that is nearest to where it is to be split, or −1. */
function vertexAlong({ x, y, next, segment, vertex, cut }: Samples, outline: RegionOutline, i: number): number {
  const j = next[i];
  const end = vertex[j] >= 0 ? vertex[j] : outline.next[segment[j]];
  let best = -1;
  let least = Infinity;
  for (let v = outline.next[segment[i]]; v !== end; v = outline.next[v]) {
    const off = Math.abs(Math.hypot(outline.x[v] - x[i], outline.y[v] - y[i]) - cut[i]);
    if (off >= least) break;
    least = off;
    best = v;
  }
  return best;
}

/** Splits the pieces that `refine` has marked. */
function split(samples: Samples, outline: RegionOutline): Samples {
  const { count, cut } = samples;
  let more = 0;
  for (let i = 0; i < count; i++) if (cut[i] > 0) more++;
  if (count + more > MOST_SAMPLES)
    throw new CannotBeCut(
      'An outline is far too long and thin to be carved; make it smaller, or mend it where it was drawn.',
    );
  const out = emptySamples(count + more);
  const { x, y, next, previous, segment, vertex } = out;
  x.set(samples.x);
  y.set(samples.y);
  next.set(samples.next);
  segment.set(samples.segment);
  vertex.set(samples.vertex);
  let k = count;
  for (let i = 0; i < count; i++) {
    if (!(cut[i] > 0)) continue;
    const inner = vertexAlong(samples, outline, i);
    if (inner >= 0) {
      x[k] = outline.x[inner];
      y[k] = outline.y[inner];
      segment[k] = inner;
    } else {
      const j = samples.next[i];
      const t = cut[i] / Math.hypot(x[j] - x[i], y[j] - y[i]);
      x[k] = x[i] + t * (x[j] - x[i]);
      y[k] = y[i] + t * (y[j] - y[i]);
      segment[k] = segment[i];
    }
    vertex[k] = inner;
    next[k] = next[i];
    next[i] = k++;
  }
  for (let i = 0; i < k; i++) previous[next[i]] = i;
  return out;
}

/** Triangulates the samples; marks pieces to be split and returns nothing, or returns the finished triangulation. */
function refine(samples: Samples, outline: RegionOutline, least: number): Omit<Triangulated, 'parted'> | undefined {
  const { count, x, y, next, previous, segment, vertex, cut } = samples;
  const coordinates = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    coordinates[2 * i] = x[i];
    coordinates[2 * i + 1] = y[i];
  }
  const { triangles, halfedges } = new Delaunator(coordinates);
  let marked = 0;
  const seen = new Uint8Array(count);
  for (let e = 0; e < triangles.length; e++) {
    const a = triangles[e];
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (next[a] === b) seen[a] = 1;
    if (next[b] === a) seen[b] = 1;
  }
  for (let i = 0; i < count; i++)
    if (!seen[i]) {
      cut[i] = pieceLength(samples, i) / 2;
      marked++;
    }
  if (marked > 0) return undefined;

  const inside = floodInside(triangles, halfedges, next);
  const n = inside.length;
  const centreX = new Float64Array(n);
  const centreY = new Float64Array(n);
  const eared = new Uint8Array(count);
  const widest = new Float64Array(count);
  for (let t = 0; t < n; t++) {
    if (!inside[t]) continue;
    const a = triangles[3 * t];
    const b = triangles[3 * t + 1];
    const c = triangles[3 * t + 2];
    const bx = x[b] - x[a];
    const by = y[b] - y[a];
    const cx = x[c] - x[a];
    const cy = y[c] - y[a];
    const b2 = bx * bx + by * by;
    const c2 = cx * cx + cy * cy;
    const d = 2 * (bx * cy - by * cx);
    const ux = Math.abs(d) < 1e-300 ? bx / 2 : (cy * b2 - by * c2) / d;
    const uy = Math.abs(d) < 1e-300 ? by / 2 : (bx * c2 - cx * b2) / d;
    centreX[t] = x[a] + ux;
    centreY[t] = y[a] + uy;
    const r = Math.sqrt(ux * ux + uy * uy);
    if (r > widest[a]) widest[a] = r;
    if (r > widest[b]) widest[b] = r;
    if (r > widest[c]) widest[c] = r;
    // Outline pieces run against the triangle: inner triangles are clockwise, the inside is left of a piece.
    const ab = next[b] === a ? 1 : 0;
    const bc = next[c] === b ? 1 : 0;
    const ca = next[a] === c ? 1 : 0;
    const pieces = ab + bc + ca;
    if (pieces === 2) {
      const tip = !ab ? c : !bc ? a : b;
      eared[tip] = 1;
      // Both sides of a corner are sampled at equal distances, else the circle's centre may lie outside: in a corner of
      // angle θ it leaves when they differ by about θ.
      const v = vertex[tip];
      if (v < 0 || outline.turn[v] < CORNER_TURN) continue;
      const before = pieceLength(samples, previous[tip]);
      const after = pieceLength(samples, tip);
      const most = Math.min(UNEVEN, (Math.PI - outline.turn[v]) / 2);
      if (Math.abs(before - after) <= most * Math.min(before, after) + 1e-6) continue;
      if (before > after) cut[previous[tip]] = before - after;
      else cut[tip] = before;
      marked++;
    } else if (pieces === 1) {
      const p = ab ? b : bc ? c : a;
      const q = next[p];
      const apex = a + b + c - p - q;
      if (pieceLength(samples, p) < 2 * FINEST) continue;
      const px = x[p] - x[apex];
      const py = y[p] - y[apex];
      const qx = x[q] - x[apex];
      const qy = y[q] - y[apex];
      if (px * qx + py * qy < WIDE_COSINE * Math.sqrt((px * px + py * py) * (qx * qx + qy * qy))) {
        cut[p] = pieceLength(samples, p) / 2;
        marked++;
      }
    }
  }
  for (let i = 0; i < count; i++) {
    const v = vertex[i];
    if (v < 0 || eared[i] || outline.turn[v] <= 0) continue;
    if (widest[i] * (1 - Math.cos(outline.turn[v] / 2)) < least) continue;
    const before = pieceLength(samples, previous[i]);
    const after = pieceLength(samples, i);
    const h = Math.min(before, after) / 2;
    if (h < FINEST / 8) continue;
    cut[i] = h;
    cut[previous[i]] = before - h;
    marked++;
  }
  if (marked > 0) return undefined;
  return { count, x, y, next, previous, segment, vertex, triangles, halfedges, inside, centreX, centreY };
}

function pieceLength({ x, y, next }: Samples, i: number): number {
  const dx = x[next[i]] - x[i];
  const dy = y[next[i]] - y[i];
  return Math.sqrt(dx * dx + dy * dy);
}

/** Which triangles lie inside: those left of an outline edge, and all that can be reached without crossing one. */
function floodInside(triangles: Uint32Array, halfedges: Int32Array, next: Int32Array): Uint8Array {
  const inside = new Uint8Array(triangles.length / 3);
  const stack = new Int32Array(inside.length);
  let top = 0;
  for (let e = 0; e < triangles.length; e++) {
    const t = Math.floor(e / 3);
    if (!inside[t] && next[triangles[e % 3 === 2 ? e - 2 : e + 1]] === triangles[e]) {
      inside[t] = 1;
      stack[top++] = t;
    }
  }
  while (top > 0) {
    const t = stack[--top];
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      if (halfedges[e] < 0) continue;
      const a = triangles[e];
      const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
      if (next[a] === b || next[b] === a) continue;
      const u = Math.floor(halfedges[e] / 3);
      if (!inside[u]) {
        inside[u] = 1;
        stack[top++] = u;
      }
    }
  }
  return inside;
}
