import type { ArcLength } from '../geometry/arc-length.ts';
import type { Clearance } from '../geometry/clearance.ts';
import type { Sides } from '../geometry/sides.ts';

export interface LeadSettings {
  /** Diameter of the end mill, mm. */
  diameter: number;
  side: 'outside' | 'inside' | 'on';
  /** How the bit comes to the wall: straight down on it, or from beside by a line or a quarter circle of this size, mm. */
  lead?: { kind: 'none' | 'line' | 'arc'; length: number };
}

export interface Lead {
  in: [number, number][];
  out: [number, number][];
}

/**
 * A way in and out on the side of the scrap, or nothing where there is no room for it.
 * @param guard where bits go, and whether a bit at a place takes from a tab.
 */
export function leadOf(
  measured: ArcLength,
  start: number,
  { lead, diameter, side }: LeadSettings,
  partOnLeft: boolean,
  guard: { edge: Clearance; sides: Sides; sign: number; takes: (x: number, y: number) => boolean },
): Lead | undefined {
  if (!lead || lead.kind === 'none' || !(lead.length > 0) || side === 'on') return undefined;
  const { x, y, dx, dy } = measured.pointAt(start);
  // Away from the part.
  const nx = partOnLeft ? dy : -dy;
  const ny = partOnLeft ? -dx : dx;
  const at = (along: number, off: number): [number, number] => [x + along * dx + off * nx, y + along * dy + off * ny];
  const r = lead.length;
  const steps = 12;
  const quarter = (sign: number) =>
    Array.from({ length: steps + 1 }, (_, k) => {
      const a = (Math.PI / 2) * (k / steps);
      return at(sign * r * Math.cos(a), r * (1 - Math.sin(a)));
    });
  const way: Lead =
    lead.kind === 'line'
      ? { in: [at(-r, r * 0.5)], out: [at(r, r * 0.5)] }
      : { in: quarter(-1).slice(0, -1), out: quarter(1).slice(0, -1).reverse() };
  // The bit's centre stays on the scrap side of every path, and no nearer to a neighbour than the path itself is.
  const free = alongEvery([...way.in, [x, y], ...way.out], LOOK_EVERY).every(([px, py]) => {
    if (guard.takes(px, py)) return false;
    return guard.sides.inside(px, py) !== guard.sign > 0 || guard.edge.at(px, py) < ON_EDGE;
  });
  return free && diameter > 0 ? way : undefined;
}

/** How far apart a way is looked at, mm. */
const LOOK_EVERY = 0.05;

/** Nearer to where the bit goes round than this a way is on it, mm. */
const ON_EDGE = 1e-3;

/** Places along a line, no further apart than so much, its corners among them. */
function alongEvery(line: readonly [number, number][], most: number): [number, number][] {
  return line.flatMap(([ax, ay], k): [number, number][] => {
    if (k + 1 === line.length) return [[ax, ay]];
    const [bx, by] = line[k + 1];
    const n = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / most));
    return Array.from({ length: n }, (_, i) => [ax + (i / n) * (bx - ax), ay + (i / n) * (by - ay)]);
  });
}
