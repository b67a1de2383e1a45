import type { Loops } from './clipper.ts';

/**
 * Exact distance from any point to the nearest of many segments, by a uniform grid searched in growing squares.
 *
 * @example new Clearance([Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)]).at(5, 4) // 4
 */
export class Clearance {
  private readonly ax: Float64Array;
  private readonly ay: Float64Array;
  private readonly bx: Float64Array;
  private readonly by: Float64Array;
  private readonly cellStart: Uint32Array;
  private readonly cellSegments: Uint32Array;
  private readonly minX: number;
  private readonly minY: number;
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  /** Foot of the last query. */
  footX = 0;
  footY = 0;

  /** @param loops closed loops; at least one with two points. */
  constructor(loops: Loops) {
    let n = 0;
    for (const loop of loops) n += loop.length / 2;
    this.ax = new Float64Array(n);
    this.ay = new Float64Array(n);
    this.bx = new Float64Array(n);
    this.by = new Float64Array(n);
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    let s = 0;
    for (const loop of loops)
      for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2, s++) {
        this.ax[s] = loop[j];
        this.ay[s] = loop[j + 1];
        this.bx[s] = loop[i];
        this.by[s] = loop[i + 1];
        minX = Math.min(minX, loop[i]);
        maxX = Math.max(maxX, loop[i]);
        minY = Math.min(minY, loop[i + 1]);
        maxY = Math.max(maxY, loop[i + 1]);
      }
    // About one segment a cell keeps both the grid and a search small.
    const cell = Math.max(
      Math.sqrt(((maxX - minX) * (maxY - minY)) / n),
      Math.max(maxX - minX, maxY - minY) / 400,
      1e-6,
    );
    this.cell = cell;
    this.minX = minX;
    this.minY = minY;
    this.columns = Math.floor((maxX - minX) / cell) + 1;
    this.rows = Math.floor((maxY - minY) / cell) + 1;
    const counts = new Uint32Array(this.columns * this.rows + 1);
    const each = (visit: (cellIndex: number, segment: number) => void) => {
      for (let i = 0; i < n; i++) {
        const c0 = this.column(Math.min(this.ax[i], this.bx[i]));
        const c1 = this.column(Math.max(this.ax[i], this.bx[i]));
        const r0 = this.row(Math.min(this.ay[i], this.by[i]));
        const r1 = this.row(Math.max(this.ay[i], this.by[i]));
        for (let r = r0; r <= r1; r++)
          for (let c = c0; c <= c1; c++) if (this.crosses(i, c, r)) visit(r * this.columns + c, i);
      }
    };
    each((index) => counts[index + 1]++);
    for (let i = 1; i < counts.length; i++) counts[i] += counts[i - 1];
    this.cellStart = counts;
    this.cellSegments = new Uint32Array(counts[counts.length - 1]);
    const next = counts.slice();
    each((index, segment) => (this.cellSegments[next[index]++] = segment));
  }

  /** Distance from (x, y) to the nearest segment, mm; its foot is left in `footX`, `footY`. */
  at(x: number, y: number): number {
    const c = this.column(x);
    const r = this.row(y);
    // How far outside the grid the point is: rings can only rule out what lies beyond that.
    let best = Infinity;
    for (let ring = 0; ring <= Math.max(this.columns, this.rows); ring++) {
      const safe = (ring - 1) * this.cell;
      if (ring > 0 && safe > 0 && best <= safe * safe) break;
      for (let rr = r - ring; rr <= r + ring; rr++) {
        if (rr < 0 || rr >= this.rows) continue;
        const step = Math.abs(rr - r) === ring ? 1 : Math.max(1, 2 * ring);
        for (let cc = c - ring; cc <= c + ring; cc += step) {
          if (cc < 0 || cc >= this.columns) continue;
          const index = rr * this.columns + cc;
          for (let k = this.cellStart[index]; k < this.cellStart[index + 1]; k++)
            best = this.nearer(this.cellSegments[k], x, y, best);
        }
      }
    }
    return Math.sqrt(best);
  }

  private nearer(s: number, x: number, y: number, best: number): number {
    const ax = this.ax[s];
    const ay = this.ay[s];
    const dx = this.bx[s] - ax;
    const dy = this.by[s] - ay;
    const length2 = dx * dx + dy * dy;
    let t = length2 > 0 ? ((x - ax) * dx + (y - ay) * dy) / length2 : 0;
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const fx = ax + t * dx;
    const fy = ay + t * dy;
    const d2 = (x - fx) * (x - fx) + (y - fy) * (y - fy);
    if (d2 >= best) return best;
    this.footX = fx;
    this.footY = fy;
    return d2;
  }

  private column(x: number): number {
    return Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.minX) / this.cell)));
  }

  private row(y: number): number {
    return Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.minY) / this.cell)));
  }

  /** Whether segment `s` meets a cell, by the separating axis of the segment's normal. */
  private crosses(s: number, column: number, row: number): boolean {
    const half = this.cell / 2;
    const cx = this.minX + (column + 0.5) * this.cell;
    const cy = this.minY + (row + 0.5) * this.cell;
    const dx = this.bx[s] - this.ax[s];
    const dy = this.by[s] - this.ay[s];
    const off = Math.abs((cx - this.ax[s]) * dy - (cy - this.ay[s]) * dx);
    return off <= half * (Math.abs(dx) + Math.abs(dy)) + 1e-9;
  }
}
