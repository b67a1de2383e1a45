import type { RegionOutline } from './region-outline.ts';

/**
 * Points at equal distance from two or three places of a region's outline. Results are left in `found`, so that the
 * inner loops make no objects.
 */
export class Bisector {
  /** The last point found, its distance to its places, and the segments its feet stand on; `c` is −1 where there are two. */
  readonly found = { x: 0, y: 0, r: 0, a: 0, b: 0, c: -1 };
  /** The last foot found, and the segment it stands on. */
  footX = 0;
  footY = 0;
  footSegment = 0;

  constructor(private readonly outline: RegionOutline) {}

  /**
   * Moves (x, y) to equal distance from the outline near segments `a` and `b`, by Newton's method along the
   * difference of the two distances: the step is (d_B − d_A)/|n_A − n_B|, n the unit vectors from the feet.
   * @param room how far off the start the two distances may be evened out, mm: the start's own error. A point further
   *   away lies on the axis too, but elsewhere.
   * @returns whether it converged within that; `found` then holds the point.
   */
  onto(x: number, y: number, a: number, b: number, room: number): boolean {
    const { found } = this;
    const startX = x;
    const startY = y;
    let limit = 0;
    for (let i = 0; i < ITERATIONS; i++) {
      const dA = this.walk(a, x, y);
      a = this.footSegment;
      const ax = this.footX;
      const ay = this.footY;
      const dB = this.walk(b, x, y);
      b = this.footSegment;
      const off = dB - dA;
      if (Math.abs(off) < EXACT) {
        if (this.isOutside(a, ax, ay, x, y) || this.isOutside(b, this.footX, this.footY, x, y)) return false;
        found.x = x;
        found.y = y;
        found.r = dA < dB ? dA : dB;
        found.a = a;
        found.b = b;
        found.c = -1;
        return true;
      }
      if (dA < 1e-12 || dB < 1e-12) return false;
      const gx = (x - ax) / dA - (x - this.footX) / dB;
      const gy = (y - ay) / dA - (y - this.footY) / dB;
      const g2 = gx * gx + gy * gy;
      if (g2 < 1e-6) return false;
      // Where the two walls meet bluntly the same unevenness lies further off.
      if (i === 0) limit = room / Math.sqrt(g2);
      x += (off / g2) * gx;
      y += (off / g2) * gy;
      if ((x - startX) * (x - startX) + (y - startY) * (y - startY) > limit * limit) return false;
    }
    return false;
  }

  /** Moves (x, y) to equal distance from three places; two equations, Newton's method. */
  amid(x: number, y: number, a: number, b: number, c: number): boolean {
    const { found } = this;
    for (let i = 0; i < ITERATIONS; i++) {
      const dA = this.walk(a, x, y);
      a = this.footSegment;
      const ux = (x - this.footX) / dA;
      const uy = (y - this.footY) / dA;
      const dB = this.walk(b, x, y);
      b = this.footSegment;
      const vx = ux - (x - this.footX) / dB;
      const vy = uy - (y - this.footY) / dB;
      const dC = this.walk(c, x, y);
      c = this.footSegment;
      const wx = ux - (x - this.footX) / dC;
      const wy = uy - (y - this.footY) / dC;
      const e = dB - dA;
      const f = dC - dA;
      if (Math.abs(e) < EXACT && Math.abs(f) < EXACT) {
        found.x = x;
        found.y = y;
        found.r = Math.min(dA, dB, dC);
        found.a = a;
        found.b = b;
        found.c = c;
        return true;
      }
      const determinant = vx * wy - vy * wx;
      if (!(Math.abs(determinant) > 1e-9)) return false;
      let dx = (e * wy - f * vy) / determinant;
      let dy = (vx * f - wx * e) / determinant;
      const length = Math.hypot(dx, dy);
      if (length > dA / 2) {
        dx *= dA / 2 / length;
        dy *= dA / 2 / length;
      }
      x += dx;
      y += dy;
    }
    return false;
  }

  /** Whether a point lies outside the region, seen from its foot on segment `s`. */
  private isOutside(s: number, footX: number, footY: number, px: number, py: number): boolean {
    const { x, y, next, previous, turn } = this.outline;
    const q = next[s];
    const v = footX === x[s] && footY === y[s] ? s : footX === x[q] && footY === y[q] ? q : -1;
    if (v < 0) return this.isRightOf(s, px, py);
    // Round a reflex vertex the inside reaches past the line of either segment; at a convex one it lies left of both.
    return turn[v] > 0 && (this.isRightOf(previous[v], px, py) || this.isRightOf(v, px, py));
  }

  private isRightOf(s: number, px: number, py: number): boolean {
    const { x, y, next } = this.outline;
    const q = next[s];
    const dx = x[q] - x[s];
    const dy = y[q] - y[s];
    return dx * (py - y[s]) - dy * (px - x[s]) < -1e-9 * Math.sqrt(dx * dx + dy * dy);
  }

  /**
   * Walks a foot downhill along the outline from a segment to where the distance to (x, y) is least; it does not go
   * past a sharp convex vertex, behind which another place begins. Returns the distance; the foot is left in `footX`,
   * `footY` and `footSegment`.
   */
  walk(s: number, px: number, py: number): number {
    const { x, y, next, previous, turn } = this.outline;
    for (;;) {
      const q = next[s];
      const ax = x[s];
      const ay = y[s];
      const dx = x[q] - ax;
      const dy = y[q] - ay;
      const ex = px - ax;
      const ey = py - ay;
      const along = ex * dx + ey * dy;
      if (along < 0) {
        const p = previous[s];
        if (turn[s] <= SHARP && ex * (x[p] - ax) + ey * (y[p] - ay) > 0) {
          s = p;
          continue;
        }
        this.footX = ax;
        this.footY = ay;
        this.footSegment = s;
        return Math.sqrt(ex * ex + ey * ey);
      }
      const l2 = dx * dx + dy * dy;
      if (along > l2) {
        const fx = px - x[q];
        const fy = py - y[q];
        const r = next[q];
        if (turn[q] <= SHARP && fx * (x[r] - x[q]) + fy * (y[r] - y[q]) > 0) {
          s = q;
          continue;
        }
        this.footX = x[q];
        this.footY = y[q];
        this.footSegment = s;
        return Math.sqrt(fx * fx + fy * fy);
      }
      const t = along / l2;
      this.footX = ax + t * dx;
      this.footY = ay + t * dy;
      this.footSegment = s;
      const gx = px - this.footX;
      const gy = py - this.footY;
      return Math.sqrt(gx * gx + gy * gy);
    }
  }
}

/** A foot does not go past a convex vertex that turns more than this: 30°. */
const SHARP = Math.PI / 6;

/** Distances count as equal below this, mm: a ten-thousandth of what a machine can follow. */
const EXACT = 1e-7;

const ITERATIONS = 12;
