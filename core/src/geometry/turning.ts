import type { ArcLength } from './arc-length.ts';

/** How much a loop turns along any stretch of it, radians. */
export class Turning {
  /** Up to each vertex: to the left, and either way. */
  private readonly left: Float64Array;
  private readonly any: Float64Array;

  constructor(private readonly measured: ArcLength) {
    const { loop } = measured;
    const n = loop.length / 2;
    const heading = Float64Array.from({ length: n }, (_, i) => {
      const k = ((i + 1) % n) * 2;
      return Math.atan2(loop[k + 1] - loop[2 * i + 1], loop[k] - loop[2 * i]);
    });
    this.left = new Float64Array(n + 1);
    this.any = new Float64Array(n + 1);
    for (let i = 0; i < n; i++) {
      const d = heading[i] - heading[(i + n - 1) % n];
      const turn = Math.atan2(Math.sin(d), Math.cos(d));
      this.left[i + 1] = this.left[i] + turn;
      this.any[i + 1] = this.any[i] + Math.abs(turn);
    }
  }

  /** All turns between two places, either way. */
  bend(from: number, to: number): number {
    return this.sum(this.any, from, to);
  }

  /** Turns to the left less those to the right between two places. */
  toLeft(from: number, to: number): number {
    return this.sum(this.left, from, to);
  }

  private sum(turned: Float64Array, from: number, to: number): number {
    const { measured } = this;
    const rounds = Math.floor((to - from) / measured.total);
    const a = measured.wrap(from);
    const b = measured.wrap(to);
    const [ta, tb] = [turned[measured.segmentAt(a) + 1], turned[measured.segmentAt(b) + 1]];
    const whole = turned[turned.length - 1];
    return rounds * whole + (a <= b ? tb - ta : whole - ta + tb);
  }
}
