import type { CutResult } from '@kerbe/core/sequence/cut-result';
import { Sheet } from '@kerbe/machine/kinds/plasma/stand-in/sheet';

/** How far inside a piece's edge a torch passes over it for sure, on the grid of the simulated sheet, mm. */
const INSIDE = 0.8;
/** A way is looked at so often, mm. */
const EVERY = 0.5;

/**
 * How often the torch travels low over a piece that was cut free: the path is cut out of a simulated sheet, whose pieces come
 * free by what is really cut away, and each way between is looked along. It shares no code with what lays the ways.
 *
 * @param low below this height over the sheet a piece may be in the way, mm.
 */
export function lowOverFreed(
  { path, radius }: Pick<CutResult, 'path' | 'radius'>,
  { length, width }: { length: number; width: number },
  low: number,
): number {
  // Whatever comes free tips, and so is known as such.
  const sheet = new Sheet({ x: 0, y: 0 }, length, width, 3, 0, () => 0);
  const { xyz, power } = path;
  let count = 0;
  const over = (x: number, y: number) =>
    [
      [0, 0],
      [INSIDE, 0],
      [-INSIDE, 0],
      [0, INSIDE],
      [0, -INSIDE],
    ].every(([dx, dy]) => sheet.tippedAt(x + dx, y + dy) > 0);
  for (let k = 1; k < power.length; k++) {
    const [ax, ay, az] = [xyz[3 * k - 3], xyz[3 * k - 2], xyz[3 * k - 1]];
    const [bx, by, bz] = [xyz[3 * k], xyz[3 * k + 1], xyz[3 * k + 2]];
    if (power[k] > 0) sheet.cut({ ax, ay, bx, by, width: 2 * radius });
    else if (power[k - 1] > 0) sheet.release();
    if (power[k] > 0 || Math.min(az, bz) >= low) continue;
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / EVERY));
    for (let i = 1; i < steps; i++)
      if (over(ax + ((bx - ax) * i) / steps, ay + ((by - ay) * i) / steps)) {
        count++;
        break;
      }
  }
  return count;
}

/** Length of the ways between strokes across the sheet, the first from the zero corner, mm. */
export function linksAcross({ xyz, power }: CutResult['path']): number {
  let length = Math.hypot(xyz[0], xyz[1]);
  for (let k = 1; k < power.length; k++)
    if (power[k] === 0) length += Math.hypot(xyz[3 * k] - xyz[3 * k - 3], xyz[3 * k + 1] - xyz[3 * k - 2]);
  return length;
}
