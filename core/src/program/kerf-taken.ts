import { Clearance } from '../geometry/clearance.ts';
import type { Outline } from '../geometry/outline.ts';
import type { Path } from '../motion/path.ts';
import { formatLength } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';

/** How much of a kerf a way may be off what it is taken for, and how much of its length has to agree. */
const OFF = 0.15;
const MOST = 0.4;
/** A way is looked at so often, mm. */
const EVERY = 1;

/** How often the way of a program has had the kerf taken off, and whether the controller is told to take it off (G41, G42). */
export interface KerfTaken {
  taken: 'none' | 'once' | 'twice';
  led: boolean;
}

/**
 * How often a way that cuts along lines has had the kerf taken off: by how far it runs beside them, on most of its length.
 *
 * @param kerf mm. @param outlines the drawing’s lines, on the sheet.
 * @param beside of every point whether the controller leads the tool beside the move to it, as in `ReadProgram`.
 * @returns nothing where it agrees with none: the way is another drawing’s.
 * @example a way 0.75 mm beside a square, for a kerf of 1.5 mm: { taken: 'once', led: false }
 */
export function kerfTaken(
  { xyz, power }: Path,
  outlines: readonly Outline[],
  kerf: number,
  beside?: Uint8Array,
): KerfTaken | undefined {
  const ends: number[] = [];
  for (const { points, closed } of outlines)
    for (let n = points.length, i = closed ? 0 : 2; i < n; i += 2) {
      const j = (i + n - 2) % n;
      ends.push(points[j], points[j + 1], points[i], points[i + 1]);
    }
  const n = ends.length / 4;
  if (n === 0 || kerf <= 0) return undefined;
  const column = (c: number) => Float64Array.from({ length: n }, (_, i) => ends[4 * i + c]);
  const edges = new Clearance(n, column(0), column(1), column(2), column(3));
  const found = { none: 0, once: 0, twice: 0 };
  let total = 0;
  let led = 0;
  for (let k = 1; k < power.length; k++) {
    if (power[k] === 0) continue;
    const [ax, ay] = [xyz[3 * k - 3], xyz[3 * k - 2]];
    const [dx, dy] = [xyz[3 * k] - ax, xyz[3 * k + 1] - ay];
    const length = Math.hypot(dx, dy);
    if (beside?.[k]) led += length;
    const steps = Math.ceil(length / EVERY);
    for (let s = 0; s < steps; s++) {
      const t = (s + 0.5) / steps;
      const off = edges.at(ax + t * dx, ay + t * dy) / kerf;
      total += length / steps;
      if (off < OFF) found.none += length / steps;
      else if (Math.abs(off - 0.5) < OFF) found.once += length / steps;
      else if (Math.abs(off - 1) < OFF) found.twice += length / steps;
    }
  }
  const taken = (['once', 'none', 'twice'] as const).find((times) => found[times] > MOST * total);
  return taken && { taken, led: led > total / 2 };
}

/** What is to be said of a program’s kerf, in one sentence; nothing where it is as the bench wants it, or not known. */
export function kerfFinding(
  found: KerfTaken | undefined,
  by: 'here' | 'controller',
  kerf: number,
  unit: LengthUnit,
): string | undefined {
  if (!found) return undefined;
  const { taken, led } = found;
  const wide = formatLength(kerf, unit, 2);
  if (taken === 'twice')
    return `It runs a whole kerf of ${wide} beside the lines: the kerf was taken off twice, and parts come out too large.`;
  if (taken === 'once' && led)
    return `It runs half a kerf of ${wide} beside the lines, and tells the controller to take the kerf off once more (G41 or G42): parts come out too large.`;
  if (taken === 'none' && led && by === 'here')
    return `It leaves the kerf of ${wide} to the controller (G41 or G42), and this bench’s takes none off, so parts come out too small.`;
  if (taken === 'none' && !led && by === 'controller')
    return `It runs on the lines and does not tell the controller to take the kerf of ${wide} off (G41 or G42), so parts come out too small.`;
  if (taken === 'none' && by === 'here')
    return `It runs on the lines, so the kerf of ${wide} is taken off by nobody, and parts come out too small.`;
  if (taken === 'once' && by === 'controller')
    return `It runs half a kerf of ${wide} beside the lines, and the controller would take the kerf off once more.`;
  return undefined;
}
