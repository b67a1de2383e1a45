/** Grid of the sheet, mm. */
const CELL = 0.5;
/** Pieces shorter than this fall between the slats of the grate, mm. */
const SLATS = 40;
/** How often what comes free tips and stays standing: small pieces, and large ones. */
const TIPS = { small: 0.2, large: 0.12 };
/** Higher than this none stands, mm. */
const HIGHEST = 35;

/** One straight piece of a kerf, mm from the sheet's lower left corner. */
export interface KerfLine {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  width: number;
}

/** A piece that came free. */
export interface FreePiece {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
  /** Gone, lying where it was, or tipped and standing so high over the sheet, mm. */
  is: 'fell' | 'lies' | 'tipped';
  high: number;
}

/** A sheet of metal on the grate: not flat, cut by kerfs, and in pieces where these close. */
export class Sheet {
  readonly columns: number;
  readonly rows: number;
  readonly cell = CELL;
  /** 0 where it is cut away or has fallen; 1 of the sheet; from 2 the pieces that came free and still lie there. */
  readonly metal: Uint16Array;
  readonly kerfs: KerfLine[] = [];
  readonly pieces: FreePiece[] = [];
  private readonly waves: readonly [number, number, number];
  private readonly sin: number;
  private readonly cos: number;
  private cutSince = false;

  /** @param corner machine coordinates of its lower left corner. @param turn how it lies, radians. */
  constructor(
    readonly corner: { x: number; y: number },
    readonly length: number,
    readonly width: number,
    readonly thickness: number,
    readonly turn: number,
    private readonly random: () => number,
  ) {
    this.columns = Math.ceil(length / CELL);
    this.rows = Math.ceil(width / CELL);
    this.metal = new Uint16Array(this.columns * this.rows).fill(1);
    this.waves = [random(), random(), 0.5 + random()];
    [this.sin, this.cos] = [Math.sin(turn), Math.cos(turn)];
  }

  /** A place in machine coordinates, from the sheet's corner along its edges. */
  local(x: number, y: number): [x: number, y: number] {
    const [dx, dy] = [x - this.corner.x, y - this.corner.y];
    return [dx * this.cos + dy * this.sin, dy * this.cos - dx * this.sin];
  }

  /** Height of its top over the grate at a place of its own: no sheet is flat. */
  top(x: number, y: number): number {
    const [a, b, c] = this.waves;
    return this.thickness + 0.8 * c * (Math.sin(x / 90 + 6 * a) + Math.sin(y / 70 + 6 * b));
  }

  private at(x: number, y: number): number {
    const c = Math.floor(x / CELL);
    const r = Math.floor(y / CELL);
    return c < 0 || r < 0 || c >= this.columns || r >= this.rows ? 0 : this.metal[r * this.columns + c];
  }

  /** Height of what lies at a place over the grate; nothing where there is a void. */
  surface(x: number, y: number): number | undefined {
    const is = this.at(x, y);
    if (is === 0) return undefined;
    const piece = is > 1 ? this.pieces[is - 2] : undefined;
    return this.top(x, y) + (piece?.high ?? 0);
  }

  /** Height of the highest that lies within a distance of a place, over the grate; nothing where all is void. */
  highest(x: number, y: number, reach: number): number | undefined {
    let highest: number | undefined;
    for (let cy = y - reach; cy <= y + reach + 1e-9; cy += 2 * CELL)
      for (let cx = x - reach; cx <= x + reach + 1e-9; cx += 2 * CELL) {
        if (Math.hypot(cx - x, cy - y) > reach) continue;
        const surface = this.surface(cx, cy);
        if (surface !== undefined && (highest === undefined || surface > highest)) highest = surface;
      }
    return highest;
  }

  /** How high a tipped piece stands over the sheet at a place, mm. */
  tippedAt(x: number, y: number): number {
    const is = this.at(x, y);
    return is > 1 ? this.pieces[is - 2].high : 0;
  }

  /** Whether any metal lies within a distance of a place. */
  near(x: number, y: number, reach: number): boolean {
    for (let cy = y - reach; cy <= y + reach + 1e-9; cy += CELL)
      for (let cx = x - reach; cx <= x + reach + 1e-9; cx += CELL)
        if (this.at(cx, cy) !== 0 && Math.hypot(cx - x, cy - y) <= reach) return true;
    return false;
  }

  /** Burns along a straight line. */
  cut(line: KerfLine): void {
    const { ax, ay, bx, by, width } = line;
    const last = this.kerfs.at(-1);
    // What goes straight on from the last is one with it.
    const goesOn = last?.bx === ax && last.by === ay && Math.abs(last.width - width) < 1e-6;
    const cross = last ? (last.bx - last.ax) * (by - ay) - (last.by - last.ay) * (bx - ax) : 1;
    if (goesOn && Math.abs(cross) < 1e-9) Object.assign(last, { bx, by });
    else this.kerfs.push({ ...line });
    this.cutSince = true;
    const r = width / 2;
    const [dx, dy] = [bx - ax, by - ay];
    const l2 = dx * dx + dy * dy;
    const c0 = Math.max(0, Math.floor((Math.min(ax, bx) - r) / CELL));
    const c1 = Math.min(this.columns - 1, Math.floor((Math.max(ax, bx) + r) / CELL));
    const r0 = Math.max(0, Math.floor((Math.min(ay, by) - r) / CELL));
    const r1 = Math.min(this.rows - 1, Math.floor((Math.max(ay, by) + r) / CELL));
    for (let row = r0; row <= r1; row++)
      for (let c = c0; c <= c1; c++) {
        const [px, py] = [(c + 0.5) * CELL - ax, (row + 0.5) * CELL - ay];
        const t = l2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy) / l2)) : 0;
        if (Math.hypot(px - t * dx, py - t * dy) <= r) this.metal[row * this.columns + c] = 0;
      }
  }

  /** The arc has gone out: what hangs on nothing any more comes free. */
  release(): void {
    if (!this.cutSince) return;
    this.cutSince = false;
    const { columns, rows, metal } = this;
    const seen = new Uint8Array(metal.length);
    const stack = new Int32Array(metal.length);
    const fill = (start: number, visit: (k: number) => void) => {
      let n = 0;
      stack[n++] = start;
      seen[start] = 1;
      while (n > 0) {
        const k = stack[--n];
        visit(k);
        const c = k % columns;
        if (c > 0 && metal[k - 1] === 1 && !seen[k - 1]) seen[(stack[n++] = k - 1)] = 1;
        if (c < columns - 1 && metal[k + 1] === 1 && !seen[k + 1]) seen[(stack[n++] = k + 1)] = 1;
        if (k >= columns && metal[k - columns] === 1 && !seen[k - columns]) seen[(stack[n++] = k - columns)] = 1;
        if (k < columns * (rows - 1) && metal[k + columns] === 1 && !seen[k + columns])
          seen[(stack[n++] = k + columns)] = 1;
      }
    };
    // The clamp is at its edge: what hangs on an edge stays.
    for (let c = 0; c < columns; c++)
      for (const k of [c, (rows - 1) * columns + c]) if (metal[k] === 1 && !seen[k]) fill(k, () => {});
    for (let r = 0; r < rows; r++)
      for (const k of [r * columns, r * columns + columns - 1]) if (metal[k] === 1 && !seen[k]) fill(k, () => {});
    for (let k = 0; k < metal.length; k++) {
      if (metal[k] !== 1 || seen[k]) continue;
      const cells: number[] = [];
      fill(k, (cell) => cells.push(cell));
      this.comesFree(cells);
    }
  }

  private comesFree(cells: readonly number[]): void {
    const { columns, metal } = this;
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const k of cells) {
      const [x, y] = [((k % columns) + 0.5) * CELL, (Math.floor(k / columns) + 0.5) * CELL];
      [minX, minY, maxX, maxY] = [Math.min(minX, x), Math.min(minY, y), Math.max(maxX, x), Math.max(maxY, y)];
    }
    const long = Math.max(maxX - minX, maxY - minY);
    const small = long < SLATS;
    const tips = this.random() < (small ? TIPS.small : TIPS.large);
    const is = tips ? 'tipped' : small ? 'fell' : 'lies';
    this.pieces.push({ minX, minY, maxX, maxY, is, high: tips ? Math.min(HIGHEST, Math.max(2, long / 2)) : 0 });
    const label = is === 'fell' ? 0 : this.pieces.length + 1;
    for (const k of cells) metal[k] = label;
  }
}
