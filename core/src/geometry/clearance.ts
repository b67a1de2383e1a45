import type { Loops } from './clipper.ts';

/**
 * Exact distance from any point to the nearest of many segments, by a uniform grid searched in growing squares.
 *
 * @example Clearance.ofLoops([Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)]).at(5, 4) // 4
 */
export class Clearance {
  private readonly cellStart: Uint32Array;
  private readonly cellSegments: Uint32Array;
  /** Beside every entry of `cellSegments`: where its segment starts, its way in x and y, and 1 over its length squared. */
  private readonly cellLines: Float64Array;
  private readonly minX: number;
  private readonly minY: number;
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  /** Foot of the last query. */
  footX = 0;
  footY = 0;
  /** Segment of the last query's foot. */
  segment = -1;

  /** @param ax, ay, bx, by ends of `n` segments, mm; at least one. */
  constructor(
    private readonly n: number,
    private readonly ax: Float64Array,
    private readonly ay: Float64Array,
    private readonly bx: Float64Array,
    private readonly by: Float64Array,
  ) {
    let minX = Infinity;
    let minY = Infinity;
    let maxX = -Infinity;
    let maxY = -Infinity;
    for (let s = 0; s < n; s++) {
      minX = Math.min(minX, ax[s], bx[s]);
      maxX = Math.max(maxX, ax[s], bx[s]);
      minY = Math.min(minY, ay[s], by[s]);
      maxY = Math.max(maxY, ay[s], by[s]);
    }
    // Two segments a cell, if they were spread evenly, keep both the grid and a search small.
    const cell = Math.max(
      Math.sqrt((2 * (maxX - minX) * (maxY - minY)) / n),
      Math.max(maxX - minX, maxY - minY) / 400,
      1e-6,
    );
    this.cell = cell;
    this.minX = minX;
    this.minY = minY;
    this.columns = Math.floor((maxX - minX) / cell) + 1;
    this.rows = Math.floor((maxY - minY) / cell) + 1;
    this.cellStart = new Uint32Array(this.columns * this.rows + 1);
    this.sweep(true);
    for (let i = 1; i < this.cellStart.length; i++) this.cellStart[i] += this.cellStart[i - 1];
    this.cellSegments = new Uint32Array(this.cellStart[this.cellStart.length - 1]);
    this.cellLines = new Float64Array(5 * this.cellSegments.length);
    this.sweep(false);
    // Filling has moved every start to the next cell's; move them back.
    this.cellStart.copyWithin(1, 0);
    this.cellStart[0] = 0;
  }

  /** @param loops closed loops; at least one with two points. */
  static ofLoops(loops: Loops): Clearance {
    let n = 0;
    for (const loop of loops) n += loop.length / 2;
    const [ax, ay, bx, by] = [0, 1, 2, 3].map(() => new Float64Array(n));
    let s = 0;
    for (const loop of loops)
      for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2, s++) {
        ax[s] = loop[j];
        ay[s] = loop[j + 1];
        bx[s] = loop[i];
        by[s] = loop[i + 1];
      }
    return new Clearance(n, ax, ay, bx, by);
  }

  /** Visits every cell of every segment: first to count, then to fill. */
  private sweep(counting: boolean): void {
    const { ax, ay, bx, by, cell, columns, cellStart, cellLines } = this;
    for (let s = 0; s < this.n; s++) {
      const c0 = this.column(Math.min(ax[s], bx[s]));
      const c1 = this.column(Math.max(ax[s], bx[s]));
      const r0 = this.row(Math.min(ay[s], by[s]));
      const r1 = this.row(Math.max(ay[s], by[s]));
      const narrow = c0 === c1 || r0 === r1;
      const dx = bx[s] - ax[s];
      const dy = by[s] - ay[s];
      const length2 = dx * dx + dy * dy;
      const inverse = length2 > 0 ? 1 / length2 : 0;
      const reach = (cell / 2) * (Math.abs(dx) + Math.abs(dy)) + 1e-9;
      for (let r = r0; r <= r1; r++)
        for (let c = c0; c <= c1; c++) {
          // A cell off the segment's line by more than its half diagonal along the normal is not met.
          if (!narrow) {
            const cx = this.minX + (c + 0.5) * cell - ax[s];
            const cy = this.minY + (r + 0.5) * cell - ay[s];
            if (Math.abs(cx * dy - cy * dx) > reach) continue;
          }
          const index = r * columns + c;
          if (counting) {
            cellStart[index + 1]++;
            continue;
          }
          const k = cellStart[index]++;
          this.cellSegments[k] = s;
          cellLines[5 * k] = ax[s];
          cellLines[5 * k + 1] = ay[s];
          cellLines[5 * k + 2] = dx;
          cellLines[5 * k + 3] = dy;
          cellLines[5 * k + 4] = inverse;
        }
    }
  }

  /**
   * Distance from (x, y) to the nearest segment, mm; its foot is left in `footX`, `footY` and `segment`.
   *
   * @param hint a segment that is likely to be near: cells further off than it are not looked into.
   */
  at(x: number, y: number, hint = -1): number {
    const { ax, ay, bx, by, minX, minY, cell, columns, rows, cellStart, cellSegments, cellLines } = this;
    const c = this.column(x);
    const r = this.row(y);
    let best = Infinity;
    let bestX = 0;
    let bestY = 0;
    let bestSegment = -1;
    if (hint >= 0) {
      const dx = bx[hint] - ax[hint];
      const dy = by[hint] - ay[hint];
      const px = x - ax[hint];
      const py = y - ay[hint];
      const length2 = dx * dx + dy * dy;
      let t = length2 > 0 ? (px * dx + py * dy) / length2 : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const ex = px - t * dx;
      const ey = py - t * dy;
      best = ex * ex + ey * ey;
      bestX = x - ex;
      bestY = y - ey;
      bestSegment = hint;
    }
    const most = Math.max(columns, rows);
    for (let ring = 0; ring <= most; ring++) {
      const safe = (ring - 1) * cell;
      if (ring > 0 && safe > 0 && best <= safe * safe) break;
      const rowEnd = Math.min(r + ring, rows - 1);
      for (let rr = Math.max(0, r - ring); rr <= rowEnd; rr++) {
        const step = rr === r - ring || rr === r + ring ? 1 : Math.max(1, 2 * ring);
        const below = minY + rr * cell - y;
        const above = -below - cell;
        const offY = below > 0 ? below : above > 0 ? above : 0;
        if (offY * offY >= best) continue;
        for (let cc = c - ring; cc <= c + ring; cc += step) {
          if (cc < 0 || cc >= columns) continue;
          const index = rr * columns + cc;
          const end = cellStart[index + 1];
          let k = cellStart[index];
          if (k === end) continue;
          const left = minX + cc * cell - x;
          const right = -left - cell;
          const offX = left > 0 ? left : right > 0 ? right : 0;
          if (offX * offX + offY * offY >= best) continue;
          for (; k < end; k++) {
            const dx = cellLines[5 * k + 2];
            const dy = cellLines[5 * k + 3];
            const px = x - cellLines[5 * k];
            const py = y - cellLines[5 * k + 1];
            let t = (px * dx + py * dy) * cellLines[5 * k + 4];
            t = t < 0 ? 0 : t > 1 ? 1 : t;
            const ex = px - t * dx;
            const ey = py - t * dy;
            const d2 = ex * ex + ey * ey;
            if (d2 < best) {
              best = d2;
              bestX = x - ex;
              bestY = y - ey;
              bestSegment = cellSegments[k];
            }
          }
        }
      }
    }
    this.footX = bestX;
    this.footY = bestY;
    this.segment = bestSegment;
    return Math.sqrt(best);
  }

  private column(x: number): number {
    return Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.minX) / this.cell)));
  }

  private row(y: number): number {
    return Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.minY) / this.cell)));
  }
}
