/** A closed loop measured along its outline, so that places on it can be named by their distance from its first point. */
export class ArcLength {
  /** Distance of each vertex from the first; one more than there are vertices, the last being the whole length. */
  readonly at: Float64Array;
  readonly total: number;
  private readonly n: number;

  /** @param loop interleaved x, y in mm, the first point not repeated. */
  constructor(readonly loop: Float64Array) {
    this.n = loop.length / 2;
    this.at = new Float64Array(this.n + 1);
    for (let i = 0; i < this.n; i++) {
      const k = ((i + 1) % this.n) * 2;
      this.at[i + 1] = this.at[i] + Math.hypot(loop[k] - loop[2 * i], loop[k + 1] - loop[2 * i + 1]);
    }
    this.total = this.at[this.n];
  }

  /** A distance brought into one turn. */
  wrap(s: number): number {
    return ((s % this.total) + this.total) % this.total;
  }

  /** The segment on which a place lies. */
  segmentAt(s: number): number {
    const wanted = this.wrap(s);
    let lo = 0;
    let hi = this.n;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (this.at[mid] <= wanted) lo = mid;
      else hi = mid;
    }
    return lo;
  }

  /** The point at a distance and the direction of travel there, a unit vector. */
  pointAt(s: number): { x: number; y: number; dx: number; dy: number } {
    const wanted = this.wrap(s);
    const i = this.segmentAt(wanted);
    const { loop } = this;
    const k = ((i + 1) % this.n) * 2;
    const length = this.at[i + 1] - this.at[i] || 1;
    const dx = (loop[k] - loop[2 * i]) / length;
    const dy = (loop[k + 1] - loop[2 * i + 1]) / length;
    const t = wanted - this.at[i];
    return { x: loop[2 * i] + t * dx, y: loop[2 * i + 1] + t * dy, dx, dy };
  }

  /** The distance along the loop of the place nearest to a point. */
  nearest(x: number, y: number): number {
    const { loop, n, at } = this;
    let best = 0;
    let least = Infinity;
    for (let i = 0; i < n; i++) {
      const k = ((i + 1) % n) * 2;
      const dx = loop[k] - loop[2 * i];
      const dy = loop[k + 1] - loop[2 * i + 1];
      const l2 = dx * dx + dy * dy;
      let t = l2 > 0 ? ((x - loop[2 * i]) * dx + (y - loop[2 * i + 1]) * dy) / l2 : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const d = Math.hypot(x - loop[2 * i] - t * dx, y - loop[2 * i + 1] - t * dy);
      if (d < least) {
        least = d;
        best = at[i] + t * Math.sqrt(l2);
      }
    }
    return best;
  }
}
