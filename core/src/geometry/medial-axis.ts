/* eslint max-lines: off -- one tracing, whose steps share its growing arrays of nodes */
import { Bisector } from './bisector.ts';
import { thinChain, straightenChain } from './axis-chain.ts';
import { Clearance } from './clearance.ts';
import { incidence } from './incidence.ts';
import { SMOOTH_DEVIATION, triangulate, type Triangulated } from './outline-samples.ts';
import { type RegionOutline, regionOutline } from './region-outline.ts';
import type { Region } from './regions.ts';
import { Sides } from './sides.ts';

/**
 * The medial axis of a region: the centres of all circles that touch its outline in two places or more (Blum 1967).
 * Its shape follows from the Delaunay triangulation of outline samples; every node is then moved onto the bisector of
 * its true nearest places, so that nothing but rounding is left between it and the exact axis.
 */
export interface MedialAxis {
  /** Nodes: centre and radius of a touching circle, mm. */
  x: Float64Array;
  y: Float64Array;
  r: Float64Array;
  /** Pairs of node numbers; a disc, whose axis is one point, has one pair of the same node twice. */
  edges: Uint32Array;
  /** Distances to this region's outline, as it was worked with. */
  clearance: Clearance;
  /** Where the outline touches itself it was parted, by a hundredth of a millimetre at most. */
  parted: boolean;
}

/**
 * Loss of carved depth (times tan α) below which a branch is dropped, mm. Twice the flattening tolerance: less
 * would keep branches that only follow flattening noise, more would blunt corners visibly.
 */
export const PRUNING_TOLERANCE = 0.006;

/** How far the cone between two nodes may reach over the outline, mm, before a node is put between them. */
const GOUGE_TOLERANCE = 0.0025;

/** How much of a wall the cone between two nodes may leave standing, mm, before a node is put between them. */
const STANDING_TOLERANCE = 0.005;

/** Where a span is looked at besides its middle. */
const QUARTERS = [0.25, 0.75];

/** Spans shorter than this are not divided, mm: twice the gouge tolerance. */
const SHORTEST = 0.005;

/** Nearer to a wall than this, mm, a place is on neither side of it: as much as a move may cut outside. */
const ON_WALL = 0.005;

/** Distances agree with the true clearance when they differ by less than this, mm. */
const VERIFIED = 1e-6;

/**
 * Computes the medial axis inside a region.
 * @throws {OwnFault} when the outline crosses itself.
 * @example a 10 × 4 rectangle: a middle line from (2, 2) to (8, 2) at radius 2 and four branches into the corners
 */
export function medialAxis(region: Region): MedialAxis {
  const outline = regionOutline(region);
  const tracing = new Tracing(outline, triangulate(outline, PRUNING_TOLERANCE / 2));
  // Where walls all but touch, the triangulation leads through between them.
  const sides = new Sides(region.loops);
  tracing.trace();
  tracing.keepInside(sides);
  tracing.prune();
  tracing.thin();
  tracing.verify();
  tracing.thin();
  tracing.refine();
  tracing.thin({ straighten: false });
  tracing.keepInside(sides);
  return tracing.done();
}

class Tracing {
  private readonly bisector: Bisector;
  private readonly clearance: Clearance;
  private count = 0;
  x = new Float64Array(256);
  y = new Float64Array(256);
  r = new Float64Array(256);
  /** Segments on which the feet of a node stand; a third where three branches meet, else −1. */
  private a = new Int32Array(256);
  private b = new Int32Array(256);
  private c = new Int32Array(256);
  private edgeCount = 0;
  private edges = new Uint32Array(512);

  constructor(
    private readonly outline: RegionOutline,
    private readonly mesh: Triangulated,
  ) {
    const { count, x, y, next } = outline;
    const bx = new Float64Array(count);
    const by = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      bx[i] = x[next[i]];
      by[i] = y[next[i]];
    }
    this.clearance = new Clearance(count, x, y, bx, by);
    this.bisector = new Bisector(outline);
  }

  private node(x: number, y: number, r: number, a: number, b: number, c = -1): number {
    if (this.count === this.x.length) this.grow();
    const n = this.count++;
    this.x[n] = x;
    this.y[n] = y;
    this.r[n] = r;
    this.a[n] = a;
    this.b[n] = b;
    this.c[n] = c;
    return n;
  }

  private grow(): void {
    this.x = doubled(this.x, Float64Array);
    this.y = doubled(this.y, Float64Array);
    this.r = doubled(this.r, Float64Array);
    this.a = doubled(this.a, Int32Array);
    this.b = doubled(this.b, Int32Array);
    this.c = doubled(this.c, Int32Array);
  }

  private edge(a: number, b: number): void {
    if (2 * this.edgeCount === this.edges.length) this.edges = doubled(this.edges, Uint32Array);
    this.edges[2 * this.edgeCount] = a;
    this.edges[2 * this.edgeCount + 1] = b;
    this.edgeCount++;
  }

  /** One node on every triangulation edge inside, one amid every triangle that three of them meet in. */
  trace(): void {
    const { mesh, outline } = this;
    const { triangles, halfedges, inside, next, vertex, segment, x, y } = mesh;
    const nodeOf = new Int32Array(triangles.length).fill(-1);
    for (let e = 0; e < triangles.length; e++) {
      const o = halfedges[e];
      const t = Math.floor(e / 3);
      if (o < e || !inside[t]) continue;
      const u = Math.floor(o / 3);
      const a = triangles[e];
      const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
      if (!inside[u] || next[a] === b || next[b] === a) continue;
      nodeOf[e] = nodeOf[o] = this.between(a, b, t, u);
    }
    for (let t = 0; t < inside.length; t++) {
      if (!inside[t]) continue;
      const p = nodeOf[3 * t];
      const q = nodeOf[3 * t + 1];
      const s = nodeOf[3 * t + 2];
      const open = (p >= 0 ? 1 : 0) + (q >= 0 ? 1 : 0) + (s >= 0 ? 1 : 0);
      if (open === 3) {
        const centre = this.amid(t);
        this.edge(centre, p);
        this.edge(centre, q);
        this.edge(centre, s);
      } else if (open === 2) this.edge(p >= 0 ? p : q, s >= 0 ? s : q);
      else if (open === 1) {
        const inner = p >= 0 ? p : q >= 0 ? q : s;
        // The ear's tip is the corner that is not on its one inner edge.
        const tip = triangles[3 * t + (p >= 0 ? 2 : q >= 0 ? 0 : 1)];
        const v = vertex[tip];
        if (v >= 0 && outline.turn[v] > 1e-3) this.edge(this.node(x[tip], y[tip], 0, outline.previous[v], v), inner);
        else {
          const { centreX, centreY } = mesh;
          const r = this.clearance.at(centreX[t], centreY[t]);
          this.edge(this.node(centreX[t], centreY[t], r, segment[tip], this.clearance.segment), inner);
        }
      }
    }
  }

  /** Drops edges that lead to nodes outside the region. */
  keepInside(sides: Sides): void {
    const out = new Uint8Array(this.count);
    for (let n = 0; n < this.count; n++) if (this.r[n] > ON_WALL && !sides.inside(this.x[n], this.y[n])) out[n] = 1;
    let kept = 0;
    for (let e = 0; e < this.edgeCount; e++) {
      const [a, b] = [this.edges[2 * e], this.edges[2 * e + 1]];
      if (out[a] || out[b]) continue;
      this.edges[2 * kept] = a;
      this.edges[2 * kept + 1] = b;
      kept++;
    }
    this.edgeCount = kept;
  }

  /**
   * The segment beside sample `s` from which (x, y) is seen: at a vertex the nearer of its two. At a sharp reflex one a
   * foot that sets out on the wrong segment finds a place behind the spike.
   */
  private seenFrom(s: number, x: number, y: number): number {
    const { outline, mesh } = this;
    const v = mesh.vertex[s];
    if (v < 0) return mesh.segment[s];
    const p = outline.previous[v];
    const q = outline.next[v];
    const ex = x - outline.x[v];
    const ey = y - outline.y[v];
    const ux = outline.x[q] - outline.x[v];
    const uy = outline.y[q] - outline.y[v];
    const wx = outline.x[v] - outline.x[p];
    const wy = outline.y[v] - outline.y[p];
    if (outline.turn[v] <= 0) {
      const u2 = ux * ux + uy * uy;
      const w2 = wx * wx + wy * wy;
      const t = Math.min(1, Math.max(0, (ex * ux + ey * uy) / u2));
      const k = Math.min(1, Math.max(0, -(ex * wx + ey * wy) / w2));
      const near = (ex - t * ux) ** 2 + (ey - t * uy) ** 2;
      return (ex + k * wx) ** 2 + (ey + k * wy) ** 2 < near ? p : v;
    }
    const toNext = (ux * ey - uy * ex) / Math.sqrt(ux * ux + uy * uy);
    const toPrevious = (wx * ey - wy * ex) / Math.sqrt(wx * wx + wy * wy);
    return toPrevious < toNext ? p : v;
  }

  /** The node on the Voronoi edge between samples `a` and `b`, from its point nearest to their middle. */
  private between(a: number, b: number, t: number, u: number): number {
    const { x, y, centreX, centreY } = this.mesh;
    const mx = (x[a] + x[b]) / 2;
    const my = (y[a] + y[b]) / 2;
    const dx = centreX[u] - centreX[t];
    const dy = centreY[u] - centreY[t];
    const l2 = dx * dx + dy * dy;
    let k = l2 > 0 ? ((mx - centreX[t]) * dx + (my - centreY[t]) * dy) / l2 : 0;
    k = k < 0 ? 0 : k > 1 ? 1 : k;
    const px = centreX[t] + k * dx;
    const py = centreY[t] + k * dy;
    return this.near(px, py, this.seenFrom(a, px, py), this.seenFrom(b, px, py), this.room(a, b));
  }

  /** How uneven the distances of a Voronoi point can be because its walls are known at samples only: h²/(8d) a wall. */
  private room(a: number, b: number): number {
    const { x, y } = this.mesh;
    const h = Math.max(this.piece(a), this.piece(b));
    const d = Math.hypot(x[a] - x[b], y[a] - y[b]) / 2;
    return (ROOM * h * h) / (8 * d) + SMOOTH_DEVIATION;
  }

  /** The longer of the two pieces of outline that meet in a sample. */
  private piece(s: number): number {
    const { x, y, next, previous } = this.mesh;
    const ux = x[next[s]] - x[s];
    const uy = y[next[s]] - y[s];
    const vx = x[s] - x[previous[s]];
    const vy = y[s] - y[previous[s]];
    return Math.sqrt(Math.max(ux * ux + uy * uy, vx * vx + vy * vy));
  }

  /** A node near (px, py) on the bisector of two segments, still to be checked against the true clearance. */
  private near(px: number, py: number, a: number, b: number, room: number): number {
    const { bisector } = this;
    if (bisector.onto(px, py, a, b, room)) {
      const { x, y, r, a: footA, b: footB } = bisector.found;
      return this.node(x, y, r, footA, footB);
    }
    const free = this.ridge(px, py, room);
    return this.node(this.ridgeX, this.ridgeY, free, a, b);
  }

  /**
   * Checks every node that is used against the true clearance. Where a third place is nearer than the two a node lies
   * between, it is put between that and one of them, or else onto the ridge of the clearance.
   */
  verify(): void {
    const { bisector, clearance, x, y, r, a, b, c } = this;
    const { found } = bisector;
    const checked = new Uint8Array(this.count);
    for (let k = 0; k < 2 * this.edgeCount; k++) {
      const n = this.edges[k];
      if (checked[n]) continue;
      checked[n] = 1;
      if (r[n] === 0 || clearance.at(x[n], y[n], a[n]) >= r[n] - VERIFIED) continue;
      const nearest = clearance.segment;
      const room = 4 * (r[n] - clearance.at(x[n], y[n])) + 1e-3;
      const mended =
        (bisector.onto(x[n], y[n], nearest, b[n], room) && clearance.at(found.x, found.y) >= found.r - VERIFIED) ||
        (bisector.onto(x[n], y[n], a[n], nearest, room) && clearance.at(found.x, found.y) >= found.r - VERIFIED);
      if (mended) {
        x[n] = found.x;
        y[n] = found.y;
        r[n] = found.r;
        a[n] = found.a;
        b[n] = found.b;
        c[n] = -1;
      } else {
        r[n] = this.ridge(x[n], y[n], room);
        x[n] = this.ridgeX;
        y[n] = this.ridgeY;
      }
    }
  }

  private ridgeX = 0;
  private ridgeY = 0;

  /**
   * Climbs the clearance from (px, py) away from its nearest foot to where it is greatest, by golden section; on that
   * line it rises to the axis and falls after it, so the result never gouges. Returns the clearance there.
   */
  private ridge(px: number, py: number, room: number): number {
    const { clearance } = this;
    const start = clearance.at(px, py);
    this.ridgeX = px;
    this.ridgeY = py;
    if (start < 1e-9) return start;
    const ux = (px - clearance.footX) / start;
    const uy = (py - clearance.footY) / start;
    let lo = 0;
    let hi = Math.min(start, room);
    let p = hi - GOLDEN * (hi - lo);
    let q = lo + GOLDEN * (hi - lo);
    const near = clearance.segment;
    let fp = clearance.at(px + ux * p, py + uy * p, near);
    let fq = clearance.at(px + ux * q, py + uy * q, near);
    for (let i = 0; i < 24; i++) {
      if (fp > fq) {
        hi = q;
        q = p;
        fq = fp;
        p = hi - GOLDEN * (hi - lo);
        fp = clearance.at(px + ux * p, py + uy * p, near);
      } else {
        lo = p;
        p = q;
        fp = fq;
        q = lo + GOLDEN * (hi - lo);
        fq = clearance.at(px + ux * q, py + uy * q, near);
      }
    }
    const best = (lo + hi) / 2;
    const free = clearance.at(px + ux * best, py + uy * best);
    if (free <= start) return start;
    this.ridgeX = px + ux * best;
    this.ridgeY = py + uy * best;
    return free;
  }

  /** The node amid a triangle whose three corners stand on three different places. */
  private amid(t: number): number {
    const { mesh, bisector, clearance } = this;
    const { found } = bisector;
    const x = mesh.centreX[t];
    const y = mesh.centreY[t];
    const a = this.seenFrom(mesh.triangles[3 * t], x, y);
    const b = this.seenFrom(mesh.triangles[3 * t + 1], x, y);
    const c = this.seenFrom(mesh.triangles[3 * t + 2], x, y);
    if (bisector.amid(x, y, a, b, c) && clearance.at(found.x, found.y) >= found.r - VERIFIED)
      return this.node(found.x, found.y, found.r, found.a, found.b, found.c);
    return this.near(x, y, a, b, this.room(mesh.triangles[3 * t], mesh.triangles[3 * t + 1]));
  }

  /** Drops branches whose loss stays under the tolerance, from their leaves inwards. */
  prune(): void {
    const { count, edges, edgeCount, x, y, r } = this;
    const degree = new Int32Array(count);
    for (let k = 0; k < 2 * edgeCount; k++) degree[edges[k]]++;
    const { start, incident } = incidence(count, edges, edgeCount);
    const gone = new Uint8Array(edgeCount);
    const loss = new Float64Array(count);
    const queue = new Int32Array(count + 2 * edgeCount);
    let top = 0;
    for (let n = 0; n < count; n++) if (degree[n] === 1) queue[top++] = n;
    let left = edgeCount;
    while (top > 0) {
      const n = queue[--top];
      if (degree[n] !== 1) continue;
      let e = -1;
      for (let k = start[n]; k < start[n + 1]; k++) if (!gone[incident[k]]) e = incident[k];
      const m = edges[2 * e] === n ? edges[2 * e + 1] : edges[2 * e];
      const dx = x[n] - x[m];
      const dy = y[n] - y[m];
      const length = Math.sqrt(dx * dx + dy * dy);
      // Into a corner of angle θ the ear at radius R loses R(1 − sin(θ/2)), with sin(θ/2) = R over its distance.
      const lost =
        r[n] === 0 && length > 0
          ? r[m] * (1 - Math.min(1, r[m] / length))
          : loss[n] + Math.max(0, length - (r[m] - r[n]));
      if (lost >= PRUNING_TOLERANCE) continue;
      gone[e] = 1;
      left--;
      degree[n]--;
      degree[m]--;
      if (lost > loss[m]) loss[m] = lost;
      if (degree[m] === 1) queue[top++] = m;
    }
    if (left === 0 && count > 0) {
      // A disc: its whole axis is its centre.
      let centre = 0;
      for (let n = 1; n < count; n++) if (r[n] > r[centre]) centre = n;
      this.edgeCount = 0;
      this.edge(centre, centre);
      return;
    }
    let k = 0;
    for (let e = 0; e < edgeCount; e++) {
      if (gone[e]) continue;
      edges[2 * k] = edges[2 * e];
      edges[2 * k + 1] = edges[2 * e + 1];
      k++;
    }
    this.edgeCount = k;
  }

  /** Puts nodes between neighbours wherever the cone between them gouges or leaves a wall standing. */
  refine(): void {
    const old = this.edges.slice(0, 2 * this.edgeCount);
    this.edgeCount = 0;
    for (let e = 0; e < old.length; e += 2) this.span(old[e], old[e + 1], 0);
  }

  private span(p: number, q: number, depth: number): void {
    const { bisector, clearance } = this;
    const dx = this.x[q] - this.x[p];
    const dy = this.y[q] - this.y[p];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (p === q || depth > 12 || length < SHORTEST) {
      // Radii differ by no more than the distance of their nodes: between these nothing can be lost or gouged.
      this.edge(p, q);
      return;
    }
    const mx = this.x[p] + dx / 2;
    const my = this.y[p] + dy / 2;
    const between = (this.r[p] + this.r[q]) / 2;
    const free = clearance.at(mx, my, this.a[p]);
    const gouge = between - free;
    if (this.lands(mx, my, dx, dy, p, q)) {
      const at = bisector.found;
      // A radius too large for lack of a third place only makes what is left standing look larger.
      if (gouge <= GOUGE_TOLERANCE && at.r - this.coneAt(p, q, at.x, at.y) <= STANDING_TOLERANCE && this.holds(p, q)) {
        this.edge(p, q);
        return;
      }
      if (clearance.at(at.x, at.y, at.a) >= at.r - VERIFIED) {
        const m = this.node(at.x, at.y, at.r, at.a, at.b);
        this.span(p, m, depth + 1);
        this.span(m, q, depth + 1);
        return;
      }
    }
    const ridge = this.ridge(mx, my, length / 4);
    const standing = ridge - this.coneAt(p, q, this.ridgeX, this.ridgeY);
    if (gouge <= GOUGE_TOLERANCE && standing <= STANDING_TOLERANCE && this.holds(p, q)) {
      this.edge(p, q);
      return;
    }
    const m = this.node(this.ridgeX, this.ridgeY, ridge, this.wallLeft, this.wallRight);
    this.span(p, m, depth + 1);
    this.span(m, q, depth + 1);
  }

  /** Whether the cone is right beside the middle of a span, too: where it goes on past a corner it may be right there only. */
  private holds(p: number, q: number): boolean {
    const [dx, dy] = [this.x[q] - this.x[p], this.y[q] - this.y[p]];
    // Beside corners the chord of half a span is off by at most a 32nd of the span's square over the radius.
    if (dx * dx + dy * dy < 32 * GOUGE_TOLERANCE * Math.min(this.r[p], this.r[q])) return true;
    for (const t of QUARTERS) {
      const free = this.clearance.at(this.x[p] + t * dx, this.y[p] + t * dy, this.a[t < 0.5 ? p : q]);
      const cone = this.r[p] + t * (this.r[q] - this.r[p]);
      if (cone - free > GOUGE_TOLERANCE || free - cone > STANDING_TOLERANCE) return false;
    }
    return true;
  }

  /** Radius that the cone between two nodes has at a point beside their span: that of the nearest place, less the way. */
  private coneAt(p: number, q: number, x: number, y: number): number {
    const dx = this.x[q] - this.x[p];
    const dy = this.y[q] - this.y[p];
    const ex = x - this.x[p];
    const ey = y - this.y[p];
    const t = (ex * dx + ey * dy) / (dx * dx + dy * dy);
    const off = Math.abs(ex * dy - ey * dx) / Math.sqrt(dx * dx + dy * dy);
    return this.r[p] + t * (this.r[q] - this.r[p]) - off;
  }

  /** The walls beside the middle of a span, as segments, and how far they are; −1 where none is known. */
  private wallLeft = -1;
  private wallRight = -1;
  private toLeft = Infinity;
  private toRight = Infinity;

  /**
   * Whether a point on the bisector of the walls beside a span is found from its middle, and well within it. The walls
   * are the nearest on either side that its nodes stand between: a junction stands between three, of which two matter.
   */
  private lands(mx: number, my: number, dx: number, dy: number, p: number, q: number): boolean {
    const { bisector, a, b, c } = this;
    this.wallLeft = this.wallRight = -1;
    this.toLeft = this.toRight = Infinity;
    this.seeWall(a[p], mx, my, dx, dy);
    this.seeWall(b[p], mx, my, dx, dy);
    this.seeWall(c[p], mx, my, dx, dy);
    this.seeWall(a[q], mx, my, dx, dy);
    this.seeWall(b[q], mx, my, dx, dy);
    this.seeWall(c[q], mx, my, dx, dy);
    if (this.wallLeft < 0 || this.wallRight < 0) return false;
    const l2 = dx * dx + dy * dy;
    if (!bisector.onto(mx, my, this.wallLeft, this.wallRight, Math.sqrt(l2))) return false;
    return Math.abs((bisector.found.x - mx) * dx + (bisector.found.y - my) * dy) < 0.3 * l2;
  }

  /** Notes the wall near segment `s` where it is the nearest yet on its side of a line through (mx, my). */
  private seeWall(s: number, mx: number, my: number, dx: number, dy: number): void {
    if (s < 0) return;
    const { bisector } = this;
    const distance = bisector.walk(s, mx, my);
    if (dx * (bisector.footY - my) - dy * (bisector.footX - mx) > 0) {
      if (distance >= this.toLeft) return;
      this.toLeft = distance;
      this.wallLeft = bisector.footSegment;
    } else if (distance < this.toRight) {
      this.toRight = distance;
      this.wallRight = bisector.footSegment;
    }
  }

  /**
   * Leaves out nodes on the way from junction to junction that lie on the line between others. Only before spans are
   * refined may a chain be straightened as well: nothing looks at its longer spans afterwards.
   */
  thin({ straighten = true } = {}): void {
    const { count, edges, edgeCount } = this;
    const { start, incident } = incidence(count, edges, edgeCount);
    const used = new Uint8Array(edgeCount);
    const chain: number[] = [];
    const out: number[] = [];
    const follow = (n: number, e: number) => {
      chain.length = 0;
      chain.push(n);
      for (;;) {
        used[e] = 1;
        n = edges[2 * e] === n ? edges[2 * e + 1] : edges[2 * e];
        chain.push(n);
        if (start[n + 1] - start[n] !== 2) break;
        const onward = incident[start[n]] === e ? incident[start[n] + 1] : incident[start[n]];
        if (used[onward]) break;
        e = onward;
      }
      if (straighten) straightenChain(chain, this);
      thinChain(chain, this, out);
    };
    for (let n = 0; n < count; n++)
      if (start[n + 1] - start[n] !== 2)
        for (let k = start[n]; k < start[n + 1]; k++) if (!used[incident[k]]) follow(n, incident[k]);
    for (let e = 0; e < edgeCount; e++) if (!used[e]) follow(edges[2 * e], e);
    this.edgeCount = 0;
    for (let k = 0; k < out.length; k += 2) this.edge(out[k], out[k + 1]);
  }

  done(): MedialAxis {
    const renamed = new Int32Array(this.count).fill(-1);
    const edges = this.edges.slice(0, 2 * this.edgeCount);
    let n = 0;
    for (let k = 0; k < edges.length; k++) {
      if (renamed[edges[k]] < 0) renamed[edges[k]] = n++;
      edges[k] = renamed[edges[k]];
    }
    const x = new Float64Array(n);
    const y = new Float64Array(n);
    const r = new Float64Array(n);
    for (let i = 0; i < this.count; i++) {
      const k = renamed[i];
      if (k < 0) continue;
      x[k] = this.x[i];
      y[k] = this.y[i];
      r[k] = this.r[i];
    }
    return { x, y, r, edges, clearance: this.clearance, parted: this.mesh.parted };
  }
}

/** Share of the samples' own error that a node may be moved by; above one, since walls bend. */
const ROOM = 4;

const GOLDEN = (Math.sqrt(5) - 1) / 2;

function doubled<T extends Float64Array | Int32Array | Uint32Array>(old: T, make: new (length: number) => T): T {
  const more = new make(2 * old.length);
  more.set(old);
  return more;
}
