import { boundsOf, type Loops } from './outline.ts';

/** Rows at most in which edges are kept. */
const MOST_ROWS = 4096;

/**
 * Tells of any number of places whether they lie in an area, even-odd, by the edges of one row each.
 * @example new Sides([Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)]).inside(4, 5) // true
 */
export class Sides {
  /** Where the edges of each row start in `ends`. */
  private readonly start: Uint32Array;
  /** x and y of both ends of every edge, row by row. */
  private readonly ends: Float64Array;
  private readonly from: number;
  private readonly high: number;

  constructor(loops: Loops) {
    const { minY, maxY } = boundsOf(loops.map((points) => ({ points }))) ?? { minY: 0, maxY: 0 };
    const edges = loops.reduce((sum, loop) => sum + loop.length / 2, 0);
    const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil(edges / 4)));
    this.from = minY;
    this.high = Math.max((maxY - minY) / count, 1e-9);
    this.start = new Uint32Array(count + 1);
    const each = (seen: (row: number, loop: Float64Array, i: number, j: number) => void) => {
      for (const loop of loops)
        for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
          const last = this.row(Math.max(loop[i + 1], loop[j + 1]));
          for (let k = this.row(Math.min(loop[i + 1], loop[j + 1])); k <= last; k++) seen(k, loop, i, j);
        }
    };
    each((row) => this.start[row + 1]++);
    for (let k = 0; k < count; k++) this.start[k + 1] += this.start[k];
    this.ends = new Float64Array(4 * this.start[count]);
    const next = this.start.slice();
    each((row, loop, i, j) => {
      const at = 4 * next[row]++;
      this.ends[at] = loop[i];
      this.ends[at + 1] = loop[i + 1];
      this.ends[at + 2] = loop[j];
      this.ends[at + 3] = loop[j + 1];
    });
  }

  inside(x: number, y: number): boolean {
    const { ends, start } = this;
    const row = this.row(y);
    let inside = false;
    for (let k = 4 * start[row]; k < 4 * start[row + 1]; k += 4) {
      const [yi, yj] = [ends[k + 1], ends[k + 3]];
      if (yi > y !== yj > y && x < ((ends[k + 2] - ends[k]) * (y - yi)) / (yj - yi) + ends[k]) inside = !inside;
    }
    return inside;
  }

  private row(y: number): number {
    return Math.max(0, Math.min(this.start.length - 2, Math.floor((y - this.from) / this.high)));
  }
}
