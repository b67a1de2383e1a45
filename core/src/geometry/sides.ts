import { boundsOf, type Loops } from './outline.ts';

/** Rows at most in which edges are kept. */
const MOST_ROWS = 4096;

/**
 * Tells of any number of places whether they lie in an area, even-odd, by the edges of one row each.
 * @example new Sides([Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)]).inside(4, 5) // true
 */
export class Sides {
  private readonly rows: number[][];
  private readonly from: number;
  private readonly high: number;

  constructor(private readonly loops: Loops) {
    const { minY, maxY } = boundsOf(loops.map((points) => ({ points }))) ?? { minY: 0, maxY: 0 };
    const edges = loops.reduce((sum, loop) => sum + loop.length / 2, 0);
    const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil(edges / 4)));
    this.from = minY;
    this.high = Math.max((maxY - minY) / count, 1e-9);
    this.rows = Array.from({ length: count }, () => []);
    loops.forEach((loop, l) => {
      for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
        const [a, b] = [this.row(Math.min(loop[i + 1], loop[j + 1])), this.row(Math.max(loop[i + 1], loop[j + 1]))];
        for (let k = a; k <= b; k++) this.rows[k].push(l, i, j);
      }
    });
  }

  inside(x: number, y: number): boolean {
    const row = this.rows[this.row(y)];
    let inside = false;
    for (let k = 0; k < row.length; k += 3) {
      const loop = this.loops[row[k]];
      const [i, j] = [row[k + 1], row[k + 2]];
      const [yi, yj] = [loop[i + 1], loop[j + 1]];
      if (yi > y !== yj > y && x < ((loop[j] - loop[i]) * (y - yi)) / (yj - yi) + loop[i]) inside = !inside;
    }
    return inside;
  }

  private row(y: number): number {
    return Math.max(0, Math.min(this.rows.length - 1, Math.floor((y - this.from) / this.high)));
  }
}
