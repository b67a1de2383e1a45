/** Points that come one after the other, asked whether one lies within a distance of a place: a grid of squares. */
export class ClosePoints {
  private readonly cells = new Map<number, number[]>();

  /** @param within the distance that is asked for, mm. */
  constructor(private readonly within: number) {}

  add(x: number, y: number): void {
    const key = this.key(Math.floor(x / this.within), Math.floor(y / this.within));
    const cell = this.cells.get(key);
    if (cell) cell.push(x, y);
    else this.cells.set(key, [x, y]);
  }

  /** Whether one of them lies nearer than the distance. */
  near(x: number, y: number): boolean {
    const [c, r] = [Math.floor(x / this.within), Math.floor(y / this.within)];
    for (let i = c - 1; i <= c + 1; i++)
      for (let j = r - 1; j <= r + 1; j++) {
        const cell = this.cells.get(this.key(i, j));
        if (!cell) continue;
        for (let k = 0; k < cell.length; k += 2)
          if (Math.hypot(cell[k] - x, cell[k + 1] - y) < this.within) return true;
      }
    return false;
  }

  private key(c: number, r: number): number {
    return c * 4_194_304 + r;
  }
}
