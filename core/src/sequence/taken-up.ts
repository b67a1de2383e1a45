import { Clearance } from '../geometry/clearance.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { strokeStarts } from '../motion/piercing.ts';
import type { CutResult } from './cut-result.ts';

/** Where something stopped in a cut. */
export interface Stopped {
  /** The cut’s id, and the last point of its path that was reached. */
  cut: string;
  point: number;
  /** Where it stopped, on the sheet, mm. */
  at: { x: number; y: number };
}

/**
 * How a cut is taken up that pierces: in the scrap beside where it stopped, again from the start of that stroke, or at the
 * next one, the rest of this being skipped.
 */
export const TAKEN_UP_BY = ['beside', 'stroke', 'next'] as const;
export type TakenUpBy = (typeof TAKEN_UP_BY)[number];

/** Why something cannot be taken up as it was asked to. */
export type NotTakenUp = 'no-room' | 'open-kerf' | 'nothing-left';

/** So far an arc goes on over a kerf that is open, and no further, mm. */
const OPEN = 3;

/** Lengths of the way in beside a cut that are tried, as multiples of the kerf, and its directions, from straight back to square. */
const LENGTHS = [4, 3, 2, 1.2];
const DIRECTIONS = [Math.PI / 4, Math.PI / 3, Math.PI / 2, Math.PI / 6, (2 * Math.PI) / 3];

/** What is round a place at which something is taken up. */
export interface Surroundings {
  /** All kerfs that are cut or will be, those of runs before among them. */
  kerfs: readonly Path[];
  /** Whether a place lies on the stock, so far from its edges. */
  onStock: (x: number, y: number, room: number) => boolean;
}

export interface TakenUp {
  /** What is left to be made, in its order. */
  cuts: CutResult[];
  /** Where the seam comes, on the sheet. */
  seam: { x: number; y: number };
}

/**
 * What is left of cuts that pierce after one of them stopped, its times still to be reckoned (`retimed`). Beside: pierced in the scrap and led in to where it stopped,
 * since an arc dies over a kerf that is open; at the stroke: as it was, from its own lead.
 *
 * @returns why not: there is no room beside it, more of the stroke is open than an arc lives over, or nothing is left.
 */
export function takenUp(
  cuts: readonly CutResult[],
  { cut: id, point, at }: Stopped,
  by: TakenUpBy,
  around: Surroundings,
): TakenUp | NotTakenUp {
  const index = cuts.findIndex((cut) => cut.id === id);
  if (index < 0) return 'nothing-left';
  const cut = cuts[index];
  const { path } = cut;
  const n = path.power.length;
  const starts = strokeStarts(path);
  // The first point that is not made yet, and the stroke it lies in: from its way there to its end.
  const next = Math.min(n - 1, point + 1);
  const inStroke = path.power[next] > 0;
  const now = inStroke ? starts.findLastIndex((start) => start < next) : starts.findIndex((start) => start >= next);
  const stroke = by === 'next' && inStroke ? now + 1 : now;
  if (now < 0 || stroke >= starts.length) {
    const rest = cuts.slice(index + 1);
    return rest.length > 0 ? { cuts: [...rest], seam: at } : 'nothing-left';
  }
  const pierce = starts[stroke];
  const from = wayTo(path, pierce);
  const seam = onWay(path, next, at);
  if (by === 'stroke' && inStroke && cutAlong(path, pierce, seam) > OPEN) return 'open-kerf';
  if (by !== 'beside' || !inStroke) {
    const rest = sliced(cut, from);
    return { cuts: [rest, ...cuts.slice(index + 1)], seam: { x: path.xyz[3 * pierce], y: path.xyz[3 * pierce + 1] } };
  }
  const way = besideWay(around, seam, cut.radius * 2, cut.pierce?.scrapOnLeft ?? true);
  if (!way) return 'no-room';
  const height = (k: number) => path.xyz[3 * k + 2];
  const builder = new PathBuilder();
  const rise = height(from);
  builder.rapid(way.x, way.y, rise);
  const touch = from + 1;
  builder.to(way.x, way.y, height(touch), path.feed[touch], 0);
  const touches = [builder.length - 1];
  builder.rapid(way.x, way.y, height(pierce));
  builder.to(way.x, way.y, height(pierce + 1), path.feed[pierce + 1], 1);
  builder.to(seam.x, seam.y, height(seam.point), path.feed[seam.point], 1);
  const append = (k: number) => {
    if (path.rapid[k]) builder.rapid(path.xyz[3 * k], path.xyz[3 * k + 1], path.xyz[3 * k + 2]);
    else builder.to(path.xyz[3 * k], path.xyz[3 * k + 1], path.xyz[3 * k + 2], path.feed[k], path.power[k]);
  };
  const newNumber = new Map<number, number>();
  for (let k = seam.point; k < n; k++) {
    append(k);
    newNumber.set(k, builder.length - 1);
  }
  const { pierce: old } = cut;
  const moved = (points: readonly number[]) => points.filter((k) => k >= seam.point).map((k) => newNumber.get(k)!);
  const rest: CutResult = {
    ...cut,
    path: builder.done(),
    pierce: old && {
      ...old,
      touches: [...touches, ...moved(old.touches)],
      level: moved(old.level),
      beside: moved(old.beside),
    },
  };
  return { cuts: [rest, ...cuts.slice(index + 1)], seam: { x: seam.x, y: seam.y } };
}

/** How far a stroke goes from its pierce to a place on it, mm. */
function cutAlong({ xyz }: Path, pierce: number, { x, y, point }: { x: number; y: number; point: number }): number {
  let length = 0;
  for (let k = pierce + 1; k < point; k++)
    length += Math.hypot(xyz[3 * k] - xyz[3 * k - 3], xyz[3 * k + 1] - xyz[3 * k - 2]);
  return length + Math.hypot(x - xyz[3 * point - 3], y - xyz[3 * point - 2]);
}

const samePlace = ({ xyz }: Path, a: number, b: number): boolean => xyz[3 * a] === xyz[3 * b] && xyz[3 * a + 1] === xyz[3 * b + 1]; // prettier-ignore

/**
 * What is left from a stroke on, counted from 0 over all cuts.
 * @example two cuts of three strokes each, from 4: the second cut’s last two
 */
export function fromStroke(cuts: readonly CutResult[], number: number): CutResult[] {
  let before = 0;
  for (const [index, cut] of cuts.entries()) {
    const starts = strokeStarts(cut.path);
    if (number < before + starts.length) {
      const from = wayTo(cut.path, starts[number - before]);
      return [sliced(cut, from), ...cuts.slice(index + 1)];
    }
    before += starts.length;
  }
  return [];
}

/** The point at which the way down to a pierce begins: the last that is higher, over the same place. */
function wayTo(path: Path, pierce: number): number {
  let from = pierce;
  while (from > 0 && path.power[from] === 0 && path.power[from - 1] === 0 && samePlace(path, from - 1, pierce)) from--;
  return from;
}

/** A cut from a point of its path on. */
function sliced(cut: CutResult, from: number): CutResult {
  const { path, pierce } = cut;
  const kept = (points: readonly number[]) => points.filter((k) => k >= from).map((k) => k - from);
  const rest: Path = {
    xyz: path.xyz.slice(3 * from),
    feed: path.feed.slice(from),
    rapid: path.rapid.slice(from),
    power: path.power.slice(from),
    ...(path.shades && {
      shades: new Map([...path.shades].filter(([k]) => k > from).map(([k, shade]) => [k - from, shade])),
    }),
  };
  rest.rapid[0] = 1;
  return {
    ...cut,
    path: rest,
    pierce: pierce && {
      ...pierce,
      touches: kept(pierce.touches),
      level: kept(pierce.level),
      beside: kept(pierce.beside),
    },
  };
}

/** How many moves on from the last one made it may have come. */
const MOVES_ON = 4;

/** The place of a stroke that is nearest to where it stopped, and the point that comes after it. */
function onWay({ xyz, power }: Path, next: number, at: { x: number; y: number }) {
  let best = { x: xyz[3 * next - 3], y: xyz[3 * next - 2], point: next, dx: 1, dy: 0 };
  let least = Infinity;
  for (let k = next; k < Math.min(power.length, next + MOVES_ON) && power[k] > 0; k++) {
    const [ax, ay] = [xyz[3 * k - 3], xyz[3 * k - 2]];
    const [dx, dy] = [xyz[3 * k] - ax, xyz[3 * k + 1] - ay];
    const l2 = dx * dx + dy * dy;
    if (l2 === 0) continue;
    const t = Math.max(0, Math.min(1, ((at.x - ax) * dx + (at.y - ay) * dy) / l2));
    const [x, y] = [ax + t * dx, ay + t * dy];
    const off = Math.hypot(at.x - x, at.y - y);
    if (off >= least) continue;
    least = off;
    const length = Math.sqrt(l2);
    best = { x, y, point: k, dx: dx / length, dy: dy / length };
  }
  return best;
}

/** A place in the scrap from which a straight way leads in to a place of a cut, clear of all kerfs and on the stock. */
function besideWay(
  { kerfs, onStock }: Surroundings,
  { x, y, dx, dy }: { x: number; y: number; dx: number; dy: number },
  kerf: number,
  scrapOnLeft: boolean,
): { x: number; y: number } | undefined {
  const side = scrapOnLeft ? 1 : -1;
  const edges = kerfEdges(kerfs);
  for (const times of LENGTHS)
    for (const angle of DIRECTIONS) {
      const length = Math.max(1, times * kerf);
      const [back, off] = [length * Math.cos(angle), length * Math.sin(angle)];
      const [px, py] = [x - back * dx - side * off * dy, y - back * dy + side * off * dx];
      const steps = 8;
      let clear = onStock(px, py, kerf / 2);
      for (let k = 0; k < steps && clear; k++) {
        const t = k / steps;
        const [qx, qy] = [px + (x - px) * t, py + (y - py) * t];
        // Its own kerf comes nearer, as much as the way leads to it.
        clear = edges.at(qx, qy) >= Math.min(kerf, 0.6 * (1 - t) * off) - 1e-9;
      }
      if (clear) return { x: px, y: py };
    }
  return undefined;
}

/** All moves with power on, as edges. */
function kerfEdges(paths: readonly Path[]): Clearance {
  const ends: number[] = [];
  for (const { xyz, power } of new Set(paths))
    for (let k = 1; k < power.length; k++)
      if (power[k] > 0) ends.push(xyz[3 * k - 3], xyz[3 * k - 2], xyz[3 * k], xyz[3 * k + 1]);
  const n = ends.length / 4;
  const column = (c: number) => Float64Array.from({ length: n }, (_, i) => ends[4 * i + c]);
  return new Clearance(n, column(0), column(1), column(2), column(3));
}
