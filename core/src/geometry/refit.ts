import { ArcLength } from './arc-length.ts';
import { Clearance } from './clearance.ts';
import { flattenCubic, FLATTENING_TOLERANCE } from './flatten.ts';

export interface Refitted {
  loop: Float64Array;
  /** Curves and lines it is made of. */
  nodes: number;
  /** Largest distance between it and what it stands for, mm. */
  off: number;
}

/** A direction counts as a corner when it turns by more than this over the window, radians: 35°. */
const CORNER = (35 * Math.PI) / 180;

/** Half the window in which a turn is measured, in tolerances: wide enough that wobble within them is no corner. */
const WINDOW = 10;

/** Points are put in so that none is further from the next than this, in tolerances: a curve between cannot bulge. */
const DENSE = 8;

/** Rounds of moving points along a curve before it is split (Schneider 1990 takes 4). */
const ROUNDS = 6;

/** An error this many times the tolerance (squared) is not worth another round. */
const HOPELESS = 16;

/**
 * Draws a closed outline anew with few smooth curves: corners stay corners, and between them cubic Bézier curves are
 * fitted by least squares and split where they stray (P. J. Schneider, “An algorithm for automatically fitting digitized
 * curves”, Graphics Gems, 1990).
 *
 * @param tolerance largest distance wanted, mm.
 * @param drawnNodes curves and lines the outline was drawn with.
 * @returns the loop as drawn where no fewer nodes come of it, or where a curve strays further than wanted.
 * @example a circle of 400 points wobbling by 0.02 mm, refitted within 0.05 mm: under twenty curves
 */
export function refitLoop(loop: Float64Array, tolerance: number, drawnNodes = loop.length / 2): Refitted {
  const asDrawn: Refitted = { loop, nodes: drawnNodes, off: 0 };
  if (!(tolerance > 0) || loop.length < 8) return asDrawn;
  const dense = withPointsBetween(loop, DENSE * tolerance);
  const lengths = new ArcLength(dense);
  if (lengths.total < 20 * tolerance) return asDrawn;
  const made = new Fitter(lengths, 0.9 * tolerance).through(cornersOf(lengths, WINDOW * tolerance));
  if (made.nodes >= drawnNodes || made.points.length < 6) return asDrawn;
  const fitted = Float64Array.from(made.points);
  const off = Math.max(furthest(loop, fitted), furthest(fitted, loop));
  return off <= tolerance ? { loop: fitted, nodes: made.nodes, off } : asDrawn;
}

/** How far the vertices of a loop lie from another at most, mm. */
function furthest(loop: Float64Array, from: Float64Array): number {
  const edge = Clearance.ofLoops([from]);
  let most = 0;
  for (let i = 0; i < loop.length; i += 2) most = Math.max(most, edge.at(loop[i], loop[i + 1]));
  return most;
}

function withPointsBetween(loop: Float64Array, most: number): Float64Array {
  const out: number[] = [];
  const n = loop.length;
  for (let i = 0; i < n; i += 2) {
    const j = (i + 2) % n;
    const pieces = Math.max(1, Math.ceil(Math.hypot(loop[j] - loop[i], loop[j + 1] - loop[i + 1]) / most));
    for (let k = 0; k < pieces; k++)
      out.push(loop[i] + ((loop[j] - loop[i]) * k) / pieces, loop[i + 1] + ((loop[j + 1] - loop[i + 1]) * k) / pieces);
  }
  return Float64Array.from(out);
}

/** Numbers of points at which an outline turns sharply, each the sharpest within the window. */
function cornersOf(lengths: ArcLength, window: number): number[] {
  const { loop, at, total } = lengths;
  const n = loop.length / 2;
  const reach = Math.min(window, total / 8);
  const turn = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const before = lengths.pointAt(at[i] - reach);
    const after = lengths.pointAt(at[i] + reach);
    const [ux, uy] = [loop[2 * i] - before.x, loop[2 * i + 1] - before.y];
    const [vx, vy] = [after.x - loop[2 * i], after.y - loop[2 * i + 1]];
    turn[i] = Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
  }
  const found: number[] = [];
  const sharp = Array.from(turn.keys()).filter((i) => turn[i] > CORNER);
  for (const i of sharp.sort((a, b) => turn[b] - turn[a])) {
    const near = found.some((k) => {
      const d = Math.abs(at[k] - at[i]);
      return Math.min(d, total - d) < reach;
    });
    if (!near) found.push(i);
  }
  return found.sort((a, b) => a - b);
}

type Vector = [number, number];

class Fitter {
  private readonly out: number[] = [];
  private nodes = 0;

  private readonly n: number;

  constructor(
    private readonly lengths: ArcLength,
    private readonly tolerance: number,
  ) {
    this.n = lengths.loop.length / 2;
  }

  through(corners: readonly number[]): { points: number[]; nodes: number } {
    const smooth = corners.length === 0;
    const stops = smooth ? [0, this.n] : [...corners, corners[0] + this.n];
    this.out.push(this.x(stops[0]), this.y(stops[0]));
    for (let k = 0; k + 1 < stops.length; k++) {
      const [from, to] = [stops[k], stops[k + 1]];
      if (!smooth && this.straight(from, to)) {
        this.out.push(this.x(to), this.y(to));
        this.nodes++;
        continue;
      }
      const start = smooth ? this.tangent(from) : this.leaving(from, to);
      const end: Vector = smooth ? [-start[0], -start[1]] : this.arriving(from, to);
      this.fit(from, to, start, end, 0);
    }
    // A loop does not repeat its first point.
    this.out.length -= 2;
    return { points: this.out, nodes: this.nodes };
  }

  private x(i: number): number {
    return this.lengths.loop[2 * (i % this.n)];
  }
  private y(i: number): number {
    return this.lengths.loop[2 * (i % this.n) + 1];
  }
  /** Way along the outline to a point; numbers past the last go round again. */
  private s(i: number): number {
    return this.lengths.at[i % this.n] + (i >= this.n ? this.lengths.total : 0);
  }

  private straight(from: number, to: number): boolean {
    const [ax, ay] = [this.x(from), this.y(from)];
    const [dx, dy] = [this.x(to) - ax, this.y(to) - ay];
    const length = Math.hypot(dx, dy);
    if (length === 0) return false;
    for (let i = from + 1; i < to; i++)
      if (Math.abs((this.x(i) - ax) * dy - (this.y(i) - ay) * dx) > this.tolerance * length) return false;
    return true;
  }

  private reach(from: number, to: number): number {
    return Math.min((WINDOW / 2) * this.tolerance, (this.s(to) - this.s(from)) / 3);
  }
  private leaving(from: number, to: number): Vector {
    const { x, y } = this.lengths.pointAt(this.s(from) + this.reach(from, to));
    return unit(x - this.x(from), y - this.y(from));
  }
  private arriving(from: number, to: number): Vector {
    const { x, y } = this.lengths.pointAt(this.s(to) - this.reach(from, to));
    return unit(x - this.x(to), y - this.y(to));
  }
  /** Direction of the outline at a point, over the window. */
  private tangent(i: number): Vector {
    const reach = Math.min((WINDOW / 2) * this.tolerance, this.lengths.total / 8);
    const s = this.s(i);
    const a = this.lengths.pointAt(s - reach);
    const b = this.lengths.pointAt(s + reach);
    return unit(b.x - a.x, b.y - a.y);
  }

  private fit(from: number, to: number, start: Vector, end: Vector, depth: number): void {
    const chord = Math.hypot(this.x(to) - this.x(from), this.y(to) - this.y(from));
    if (to - from < 2 || depth > 40) {
      this.curve(from, to, start, end, chord / 3, chord / 3);
      return;
    }
    const u = new Float64Array(to - from + 1);
    const s0 = this.s(from);
    const span = this.s(to) - s0;
    for (let i = from; i <= to; i++) u[i - from] = (this.s(i) - s0) / span;
    const limit = this.tolerance * this.tolerance;
    let worst = from + ((to - from) >> 1);
    for (let round = 0; round < ROUNDS; round++) {
      const [a, b] = this.handles(from, to, u, start, end, span);
      const found = this.error(from, to, u, start, end, a, b);
      worst = found.at;
      if (found.error <= limit) {
        this.curve(from, to, start, end, a, b);
        return;
      }
      if (found.error > HOPELESS * limit && round > 0) break;
      this.reparametrise(from, to, u, start, end, a, b);
    }
    worst = Math.min(to - 1, Math.max(from + 1, worst));
    const middle = this.tangent(worst);
    this.fit(from, worst, start, [-middle[0], -middle[1]], depth + 1);
    this.fit(worst, to, middle, end, depth + 1);
  }

  /** Lengths of both handles by least squares; a third of the way where those are of no use. */
  private handles(from: number, to: number, u: Float64Array, t1: Vector, t2: Vector, span: number): [number, number] {
    const [ax, ay, bx, by] = [this.x(from), this.y(from), this.x(to), this.y(to)];
    let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
    const turn = t1[0] * t2[0] + t1[1] * t2[1];
    for (let i = from; i <= to; i++) {
      const t = u[i - from];
      const s = 1 - t;
      const [b0, b1, b2, b3] = [s * s * s, 3 * t * s * s, 3 * t * t * s, t * t * t];
      c00 += b1 * b1;
      c01 += b1 * b2 * turn;
      c11 += b2 * b2;
      const dx = this.x(i) - ax * (b0 + b1) - bx * (b2 + b3);
      const dy = this.y(i) - ay * (b0 + b1) - by * (b2 + b3);
      x0 += b1 * (dx * t1[0] + dy * t1[1]);
      x1 += b2 * (dx * t2[0] + dy * t2[1]);
    }
    const determinant = c00 * c11 - c01 * c01;
    const third = span / 3;
    if (Math.abs(determinant) < 1e-12 * c00 * c11) return [third, third];
    const a = (x0 * c11 - x1 * c01) / determinant;
    const b = (c00 * x1 - c01 * x0) / determinant;
    // Handles that are tiny, turned round or longer than the way itself make loops.
    const useful = (h: number) => h > 1e-6 * span && h < span;
    return useful(a) && useful(b) ? [a, b] : [third, third];
  }

  private error(
    from: number,
    to: number,
    u: Float64Array,
    t1: Vector,
    t2: Vector,
    a: number,
    b: number,
  ): { error: number; at: number } {
    const out = { error: 0, at: (from + to) >> 1 };
    for (let i = from + 1; i < to; i++) {
      const [x, y] = this.at(from, to, t1, t2, a, b, u[i - from]);
      const d = (x - this.x(i)) ** 2 + (y - this.y(i)) ** 2;
      if (d > out.error) [out.error, out.at] = [d, i];
    }
    return out;
  }

  private at(from: number, to: number, t1: Vector, t2: Vector, a: number, b: number, t: number): Vector {
    const s = 1 - t;
    const [b0, b1, b2, b3] = [s * s * s, 3 * t * s * s, 3 * t * t * s, t * t * t];
    return [
      this.x(from) * (b0 + b1) + this.x(to) * (b2 + b3) + b1 * a * t1[0] + b2 * b * t2[0],
      this.y(from) * (b0 + b1) + this.y(to) * (b2 + b3) + b1 * a * t1[1] + b2 * b * t2[1],
    ];
  }

  /** Moves every point’s place on the curve nearer to its foot: one step of Newton’s method. */
  private reparametrise(from: number, to: number, u: Float64Array, t1: Vector, t2: Vector, a: number, b: number): void {
    const p0: Vector = [this.x(from), this.y(from)];
    const p3: Vector = [this.x(to), this.y(to)];
    const p1: Vector = [p0[0] + a * t1[0], p0[1] + a * t1[1]];
    const p2: Vector = [p3[0] + b * t2[0], p3[1] + b * t2[1]];
    for (let i = from + 1; i < to; i++) {
      const t = u[i - from];
      const s = 1 - t;
      let [f, g] = [0, 0];
      for (const k of [0, 1] as const) {
        const q = s * s * s * p0[k] + 3 * s * s * t * p1[k] + 3 * s * t * t * p2[k] + t * t * t * p3[k];
        const d1 = 3 * (s * s * (p1[k] - p0[k]) + 2 * s * t * (p2[k] - p1[k]) + t * t * (p3[k] - p2[k]));
        const d2 = 6 * (s * (p2[k] - 2 * p1[k] + p0[k]) + t * (p3[k] - 2 * p2[k] + p1[k]));
        const off = q - (k === 0 ? this.x(i) : this.y(i));
        f += off * d1;
        g += d1 * d1 + off * d2;
      }
      if (g > 0) u[i - from] = Math.min(1, Math.max(0, t - f / g));
    }
  }

  private curve(from: number, to: number, t1: Vector, t2: Vector, a: number, b: number): void {
    const [x0, y0, x3, y3] = [this.x(from), this.y(from), this.x(to), this.y(to)];
    flattenCubic(
      this.out,
      x0,
      y0,
      x0 + a * t1[0],
      y0 + a * t1[1],
      x3 + b * t2[0],
      y3 + b * t2[1],
      x3,
      y3,
      FLATTENING_TOLERANCE,
    );
    this.nodes++;
  }
}

function unit(x: number, y: number): Vector {
  const length = Math.hypot(x, y);
  return length > 0 ? [x / length, y / length] : [1, 0];
}
