import { neverBurnt } from '@kerbe/core/ways/never-burnt';

/** Finest grid of the stock, and the most cells that it has, mm. */
const FINEST = 0.05;
const MOST_CELLS = 6e6;

/** How a material takes energy, J/mm²: where it marks, where it chars, and what each millimetre of it takes to be cut through. */
interface Response {
  marks: number;
  chars: number;
  through: number;
  /** It catches fire where so much comes at once without air. */
  flames: number;
}

/** Made up, as all that the stand-in knows of materials is. */
const WOOD: Response = { marks: 0.2, chars: 6, through: 9, flames: 14 };
const CARD: Response = { marks: 0.1, chars: 2, through: 5, flames: 6 };
const responseOf = (material: string): Response => (/card|paper/i.test(material) ? CARD : WOOD);

/** One straight piece of a way that the beam has cut through, mm from the stock's lower left corner. */
export interface ThroughLine {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  width: number;
}

/** Stock under a beam: how much energy each place has had, where it is cut through, and what came out of it. */
export class BurntStock {
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  /** J/mm². */
  readonly energy: Float32Array;
  readonly through: ThroughLine[] = [];
  /** It holds chlorine, and nobody may burn it. */
  readonly poison: boolean;
  private readonly response: Response;
  private readonly sin: number;
  private readonly cos: number;

  /** @param corner machine coordinates of its lower left corner. @param turn how it lies, radians. */
  constructor(
    readonly corner: { x: number; y: number },
    readonly material: string,
    readonly length: number,
    readonly width: number,
    readonly thickness: number,
    readonly turn: number,
  ) {
    this.cell = Math.max(FINEST, Math.sqrt((length * width) / MOST_CELLS));
    this.columns = Math.ceil(length / this.cell);
    this.rows = Math.ceil(width / this.cell);
    this.energy = new Float32Array(this.columns * this.rows);
    this.response = responseOf(material);
    [this.sin, this.cos] = [Math.sin(turn), Math.cos(turn)];
    this.poison = isRefused(material);
  }

  /** A place in machine coordinates, from the stock's corner along its edges. */
  local(x: number, y: number): [x: number, y: number] {
    const [dx, dy] = [x - this.corner.x, y - this.corner.y];
    return [dx * this.cos + dy * this.sin, dy * this.cos - dx * this.sin];
  }

  /**
   * Burns along a straight line.
   * @param each J/mm² that the line gives to what lies under it. @returns whether it flames up without air.
   */
  burn(ax: number, ay: number, bx: number, by: number, spot: number, each: number): boolean {
    const { cell, columns, rows, energy, response } = this;
    const r = spot / 2;
    const [dx, dy] = [bx - ax, by - ay];
    const l2 = dx * dx + dy * dy;
    const c0 = Math.max(0, Math.floor((Math.min(ax, bx) - r) / cell));
    const c1 = Math.min(columns - 1, Math.floor((Math.max(ax, bx) + r) / cell));
    const r0 = Math.max(0, Math.floor((Math.min(ay, by) - r) / cell));
    const r1 = Math.min(rows - 1, Math.floor((Math.max(ay, by) + r) / cell));
    let most = 0;
    for (let row = r0; row <= r1; row++)
      for (let c = c0; c <= c1; c++) {
        const [px, py] = [(c + 0.5) * cell - ax, (row + 0.5) * cell - ay];
        const t = l2 > 0 ? (px * dx + py * dy) / l2 : 0;
        // Between its ends only: the next piece of the way goes on there.
        if (t < 0 || t >= 1 || Math.abs(px * dy - py * dx) > r * Math.sqrt(l2)) continue;
        const now = (energy[row * columns + c] += each);
        if (now > most) most = now;
      }
    if (most >= response.through * this.thickness) this.cutThrough({ ax, ay, bx, by, width: spot });
    return each >= response.flames;
  }

  private cutThrough(line: ThroughLine): void {
    const last = this.through.at(-1);
    const goesOn = last?.bx === line.ax && last.by === line.ay && last.width === line.width;
    const cross = last ? (last.bx - last.ax) * (line.by - line.ay) - (last.by - last.ay) * (line.bx - line.ax) : 1;
    if (goesOn && Math.abs(cross) < 1e-9) Object.assign(last, { bx: line.bx, by: line.by });
    else this.through.push(line);
  }

  /** Whether a place is marked, charred or cut through: 0 to 3. */
  stateAt(k: number): number {
    const { marks, chars, through } = this.response;
    const had = this.energy[k];
    return had >= through * this.thickness ? 3 : had >= chars ? 2 : had >= marks ? 1 : 0;
  }
}

function isRefused(material: string): boolean {
  try {
    neverBurnt(material);
    return false;
  } catch {
    return true;
  }
}
