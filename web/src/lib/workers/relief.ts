import type { CutJob } from '@kerbe/core/job/job';
import type { HeightField } from '@kerbe/core/carving/height-field';
import type { Path } from '@kerbe/core/motion/path';
import { thickest } from '@kerbe/core/stock/stock';
import type { Leaves } from '@kerbe/core/tools/leaves';

/** Triangles of the carved piece, ready for the graphics card: z up, the stock's middle at the origin, mm. */
export interface Relief {
  positions: Float32Array;
  normals: Float32Array;
  /** Red, green and blue of each vertex, 0 to 1: untouched surface, carved wood, or the board below. */
  colours: Float32Array;
  index: Uint32Array;
  length: number;
  width: number;
  thickness: number;
}

const SURFACE = [0.66, 0.44, 0.21];
const CARVED = [0.36, 0.2, 0.08];
const MARKED = [0.2, 0.14, 0.1];
const BOARD = [0.38, 0.35, 0.29];

/** Places of a path that draws, no further apart than a cell. */
function along({ xyz, rapid }: Path, cell: number, at: (x: number, y: number) => void): void {
  for (let i = 1; i < rapid.length; i++) {
    if (rapid[i] || xyz[3 * i + 2] > 0) continue;
    const [ax, ay, bx, by] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1]];
    const steps = Math.max(1, Math.ceil((2 * Math.hypot(bx - ax, by - ay)) / cell));
    for (let k = 0; k <= steps; k++) at(ax + ((bx - ax) * k) / steps, ay + ((by - ay) * k) / steps);
  }
}

/** Turns a height field into triangles; where the piece is cut through, its floor is the spoilboard. */
export function reliefOf(
  { columns, rows, cell, heights }: HeightField,
  job: CutJob,
  cuts: readonly { path: Path; leaves: Leaves }[] = [],
): Relief {
  const { stock } = job;
  const thickness = thickest(stock);
  const positions = new Float32Array(columns * rows * 3);
  const normals = new Float32Array(columns * rows * 3);
  const colours = new Float32Array(columns * rows * 3);
  const at = (c: number, r: number) =>
    Math.max(-thickness, heights[Math.min(rows - 1, Math.max(0, r)) * columns + Math.min(columns - 1, Math.max(0, c))]);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const k = r * columns + c;
      const h = at(c, r);
      positions[3 * k] = (c + 0.5) * cell - stock.length / 2;
      positions[3 * k + 1] = (r + 0.5) * cell - stock.width / 2;
      positions[3 * k + 2] = h;
      const nx = (at(c - 1, r) - at(c + 1, r)) / (2 * cell);
      const ny = (at(c, r - 1) - at(c, r + 1)) / (2 * cell);
      const l = Math.hypot(nx, ny, 1);
      normals[3 * k] = nx / l;
      normals[3 * k + 1] = ny / l;
      normals[3 * k + 2] = 1 / l;
      colours.set(h > -0.02 ? SURFACE : h <= -thickness + 0.01 ? BOARD : CARVED, 3 * k);
    }
  for (const { path, leaves } of cuts)
    if (leaves.kind === 'mark' || leaves.kind === 'burn')
      along(path, cell, (x, y) => {
        const [c, r] = [Math.floor(x / cell), Math.floor(y / cell)];
        if (c >= 0 && r >= 0 && c < columns && r < rows) colours.set(MARKED, 3 * (r * columns + c));
      });
  const index = new Uint32Array((columns - 1) * (rows - 1) * 6);
  let i = 0;
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < columns; c++) {
      const k = r * columns + c;
      index[i++] = k;
      index[i++] = k + 1;
      index[i++] = k + columns;
      index[i++] = k + 1;
      index[i++] = k + columns + 1;
      index[i++] = k + columns;
    }
  return { positions, normals, colours, index, length: stock.length, width: stock.width, thickness };
}
