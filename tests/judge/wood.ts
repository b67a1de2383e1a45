import type { Move } from './moves.ts';

/** What a move did to the wood, as cells tell: only where to look, since a cell is coarse. */
export interface Bite {
  move: Move;
  /** The deepest taken at once, mm. */
  drop: number;
  x: number;
  y: number;
  /** How much lies under the bit's disc, mm². */
  area: number;
}

/** A block of wood as heights of cells, cut by flat round bits. */
export class Wood {
  readonly nx: number;
  readonly ny: number;
  readonly height: Float64Array;

  constructor(
    readonly box: { minX: number; minY: number; maxX: number; maxY: number },
    readonly cell: number,
    top = 0,
  ) {
    this.nx = Math.ceil((box.maxX - box.minX) / cell) + 1;
    this.ny = Math.ceil((box.maxY - box.minY) / cell) + 1;
    this.height = new Float64Array(this.nx * this.ny).fill(top);
  }

  place(index: number): [number, number] {
    return [this.box.minX + (index % this.nx) * this.cell, this.box.minY + Math.floor(index / this.nx) * this.cell];
  }

  at(x: number, y: number): number {
    const i = Math.round((x - this.box.minX) / this.cell);
    const j = Math.round((y - this.box.minY) / this.cell);
    return i < 0 || j < 0 || i >= this.nx || j >= this.ny ? 0 : this.height[j * this.nx + i];
  }

  /** Every cell that a flat bit covers on a move, with how low its end comes there: over a cell's own height it is air. */
  under({ ax, ay, az, bx, by, bz }: Move, radius: number, visit: (index: number, z: number) => void): void {
    const { box, cell, nx, ny } = this;
    const low = (v: number, from: number) => Math.max(0, Math.ceil((v - radius - from) / cell));
    const high = (v: number, from: number, n: number) => Math.min(n - 1, Math.floor((v + radius - from) / cell));
    const [dx, dy] = [bx - ax, by - ay];
    const l2 = dx * dx + dy * dy;
    const [i1, j1] = [high(Math.max(ax, bx), box.minX, nx), high(Math.max(ay, by), box.minY, ny)];
    for (let j = low(Math.min(ay, by), box.minY); j <= j1; j++)
      for (let i = low(Math.min(ax, bx), box.minX); i <= i1; i++) {
        const x = box.minX + i * cell - ax;
        const y = box.minY + j * cell - ay;
        let [from, to] = [0, 1];
        if (l2 > 0) {
          const middle = (x * dx + y * dy) / l2;
          const off = (x * dy - y * dx) ** 2 / l2;
          if (off > radius * radius) continue;
          const half = Math.sqrt((radius * radius - off) / l2);
          from = Math.max(0, middle - half);
          to = Math.min(1, middle + half);
          if (from > to) continue;
        } else if (x * x + y * y > radius * radius) continue;
        visit(j * nx + i, Math.min(az + from * (bz - az), az + to * (bz - az)));
      }
  }

  cut(move: Move, radius: number): void {
    this.under(move, radius, (index, z) => {
      if (z < this.height[index]) this.height[index] = z;
    });
  }

  /** Distance from a cell to the nearest whose height, in `height`, is no more than `z`; looked for as far as `most`. */
  toCleared(index: number, z: number, most: number, height: Float64Array): number {
    const { nx, ny, cell } = this;
    const reach = Math.ceil(most / cell);
    const [ci, cj] = [index % nx, Math.floor(index / nx)];
    let best = Infinity;
    for (let j = Math.max(0, cj - reach); j <= Math.min(ny - 1, cj + reach); j++)
      for (let i = Math.max(0, ci - reach); i <= Math.min(nx - 1, ci + reach); i++)
        if (height[j * nx + i] <= z) best = Math.min(best, Math.hypot(i - ci, j - cj) * cell);
    return best;
  }
}
