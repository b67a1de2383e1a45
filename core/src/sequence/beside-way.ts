import { Clearance } from '../geometry/clearance.ts';
import type { Path } from '../motion/path.ts';
import type { Seam } from './seam.ts';

/** Lengths of the way in beside a cut that are tried, as multiples of the kerf, and its directions from straight back; forward where there is no other. */
const LENGTHS = [4, 3, 2, 1.2];
const DIRECTIONS = [45, 60, 90, 30, 120, 135, 150].map((degrees) => (degrees * Math.PI) / 180);
/** Where the controller leads the tool beside its way it rounds the corner between the two: no sharper than this, so that nothing is left there. */
const LED_AT_MOST = Math.PI / 3;

export interface Beside {
  /** All kerfs that are cut or will be, those of runs before among them. */
  kerfs: readonly Path[];
  kerf: number;
  /** The controller leads the tool beside the ways, by half a kerf. */
  led: boolean;
  scrapOnLeft: boolean;
  /** Whether a place lies on the stock, so far from its edges. */
  onStock: (x: number, y: number, room: number) => boolean;
  /** Whether what lies at a place was cut free. */
  free: (x: number, y: number) => boolean;
}

/** It is pierced so far from all kerfs at least, in kerfs, so that there is metal under it. */
const ON_METAL = 0.75;

/** So far before the seam a way may meet a kerf, mm: the one that it is led in to. */
const AT_SEAM = 1e-4;

/**
 * A place in the scrap from which a straight way leads in to a place of a cut, clear of all kerfs, over none of them, on the
 * stock, and in what is held; why not, where there is none.
 */
export function besideWay(
  { kerfs, kerf, led, scrapOnLeft, onStock, free }: Beside,
  { x, y, ways }: Pick<Seam, 'x' | 'y' | 'ways'>,
): { x: number; y: number } | 'no-room' | 'fallen' {
  const side = scrapOnLeft ? 1 : -1;
  const ends = kerfEdges(kerfs);
  const edges = new Clearance(ends[0].length, ...ends);
  let why: 'no-room' | 'fallen' = 'no-room';
  // Led round a corner it would leave what it went round so far, come to on the way after it.
  const along = led && !turnsInto(ways, side) ? ways.slice(0, 1) : ways;
  const directions = DIRECTIONS.filter((angle) => !led || angle < LED_AT_MOST + 1e-9).flatMap((angle) =>
    along.map((way) => ({ ...way, angle })),
  );
  for (const times of LENGTHS)
    for (const { dx, dy, angle } of directions) {
      const length = Math.max(1, times * kerf);
      const [back, off] = [length * Math.cos(angle), length * Math.sin(angle)];
      const [px, py] = [x - back * dx - side * off * dy, y - back * dy + side * off * dx];
      const steps = 8;
      let clear =
        onStock(px, py, led ? kerf : kerf / 2) &&
        inScrap(ways, side, px - x, py - y) &&
        edges.at(px, py) >= (ON_METAL + (led ? 0.5 : 0)) * kerf;
      for (let k = 0; k < steps && clear; k++) {
        const t = k / steps;
        const [qx, qy] = [px + (x - px) * t, py + (y - py) * t];
        // Its own kerf comes nearer, as much as the way leads to it.
        clear = edges.at(qx, qy) >= Math.min(kerf, 0.6 * (1 - t) * off) - 1e-9;
      }
      const t = AT_SEAM / length;
      if (!clear || crossesAny(ends, px, py, x + (px - x) * t, y + (py - y) * t)) continue;
      if (!free(px, py)) return { x: px, y: py };
      why = 'fallen';
    }
  return why;
}

/** Whether a direction leads into the scrap: at a corner that turns into it on the scrap’s side of both ways, else of one. */
function inScrap(ways: Seam['ways'], side: number, dx: number, dy: number): boolean {
  const beside = ways.map((way) => side * (way.dx * dy - way.dy * dx) > 0);
  return turnsInto(ways, side) ? beside.every(Boolean) : beside.some(Boolean);
}

/** Whether a cut turns towards the scrap at a corner. */
function turnsInto(ways: Seam['ways'], side: number): boolean {
  const [into, out] = [ways[0], ways.at(-1)!];
  return side * (into.dx * out.dy - into.dy * out.dx) > 0;
}

type Columns = [Float64Array, Float64Array, Float64Array, Float64Array];

/** Whether a line goes over one of the edges. */
function crossesAny([ax, ay, bx, by]: Columns, px: number, py: number, qx: number, qy: number): boolean {
  const across = (ux: number, uy: number, vx: number, vy: number, x: number, y: number) => (vx - ux) * (y - uy) - (vy - uy) * (x - ux); // prettier-ignore
  for (let i = 0; i < ax.length; i++) {
    const [a, b] = [across(px, py, qx, qy, ax[i], ay[i]), across(px, py, qx, qy, bx[i], by[i])];
    if (a > 0 === b > 0) continue;
    const [p, q] = [across(ax[i], ay[i], bx[i], by[i], px, py), across(ax[i], ay[i], bx[i], by[i], qx, qy)];
    if (p > 0 !== q > 0) return true;
  }
  return false;
}

/** All moves with power on, as edges: where each begins and ends. */
function kerfEdges(paths: readonly Path[]): Columns {
  const ends: number[] = [];
  for (const { xyz, power } of new Set(paths))
    for (let k = 1; k < power.length; k++)
      if (power[k] > 0) ends.push(xyz[3 * k - 3], xyz[3 * k - 2], xyz[3 * k], xyz[3 * k + 1]);
  return [0, 1, 2, 3].map((c) => Float64Array.from({ length: ends.length / 4 }, (_, i) => ends[4 * i + c])) as Columns;
}
