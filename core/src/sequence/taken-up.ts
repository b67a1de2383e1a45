import type { Clipper } from '../geometry/clipper.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { piercingMoved, strokeStarts } from '../motion/piercing.ts';
import { cutFree } from '../ways/cut-free.ts';
import { type Beside, besideWay } from './beside-way.ts';
import type { CutResult } from './cut-result.ts';
import { type Seam, seamOf, type StoppedAt } from './seam.ts';

interface Place {
  x: number;
  y: number;
}

/** Where something stopped in a cut. */
export interface Stopped extends StoppedAt {
  /** The cut’s id. */
  cut: string;
}

/**
 * How a cut is taken up that pierces: in the scrap beside where it stopped, again from the start of that stroke, or at the
 * next one, the rest of this being skipped.
 */
export const TAKEN_UP_BY = ['beside', 'stroke', 'next'] as const;
export type TakenUpBy = (typeof TAKEN_UP_BY)[number];

/** Why something cannot be taken up as it was asked to. */
export type NotTakenUp = 'no-room' | 'fallen' | 'open-kerf' | 'nothing-left' | 'last-free';

/** So far an arc goes on over a kerf that is open, and no further, mm. */
const OPEN = 3;

/** What is round a place at which something is taken up. */
export interface Surroundings extends Pick<Beside, 'kerfs' | 'onStock'> {
  /** Ways along which kerfs were cut in runs before, in their order; see `cutWays`. */
  before: readonly number[][];
  clipper: Clipper;
}

export interface TakenUp {
  /** What is left to be made, in its order. */
  cuts: CutResult[];
  /** Where it goes on, on the sheet: where the seam comes, if it is pierced beside it. */
  seam: Place;
  /** Nothing held any more what was being cut, and so it goes on at the next: how much of its kerf is not cut, mm. */
  closed?: number;
  /** Ways along which kerfs are cut by now. */
  done: number[][];
}

/**
 * What is left of cuts that pierce after one of them stopped, its times still to be reckoned (`retimed`). Beside: pierced in the
 * scrap and led in to where it stopped, since an arc dies over a kerf that is open; at the stroke: as it was, from its own lead.
 * Where nothing holds any more what was being cut, it goes on at the next stroke, however it was asked for.
 *
 * @returns why not: there is no room beside it, what is beside it may be free, more of the stroke is open than an arc lives over,
 * or nothing is left, or only what is free.
 */
export function takenUp(
  cuts: readonly CutResult[],
  { cut: id, ...stopped }: Stopped,
  by: TakenUpBy,
  around: Surroundings,
): TakenUp | NotTakenUp {
  const index = cuts.findIndex((cut) => cut.id === id);
  if (index < 0) return 'nothing-left';
  const cut = cuts[index];
  const { path } = cut;
  const starts = strokeStarts(path);
  const seam = seamOf(path, stopped);
  // Between strokes, the first point that is not made yet.
  const next = seam?.point ?? Math.min(path.power.length - 1, stopped.point + 1);
  const done = [
    ...around.before,
    ...cuts.slice(0, index).flatMap((before) => cutWays(before.path)),
    ...cutWays(path, next, seam),
  ];
  const then = (rest: CutResult, where: Place, closed?: number): TakenUp => ({
    cuts: [rest, ...cuts.slice(index + 1)],
    seam: { x: where.x, y: where.y },
    closed,
    done,
  });
  const fromStroke = (stroke: number, closed?: number): TakenUp | NotTakenUp => {
    if (stroke >= 0 && stroke < starts.length) {
      const pierce = starts[stroke];
      return then(sliced(cut, wayTo(path, pierce)), { x: path.xyz[3 * pierce], y: path.xyz[3 * pierce + 1] }, closed);
    }
    const rest = cuts.slice(index + 1);
    if (rest.length > 0) return { cuts: rest, seam: { x: rest[0].path.xyz[0], y: rest[0].path.xyz[1] }, closed, done };
    return closed ? 'last-free' : 'nothing-left';
  };
  if (!seam) return fromStroke(starts.findIndex((start) => start >= next));
  const now = starts.findLastIndex((start) => start < next);
  const kerf = 2 * cut.radius;
  const open = openLeft(cut, starts[now], seam);
  if (open <= HOLDS * kerf) return fromStroke(now + 1, open);
  if (by === 'next') return fromStroke(now + 1);
  if (by === 'stroke') return alongTo(path, starts[now] + 1, seam.point, seam) > OPEN ? 'open-kerf' : fromStroke(now);
  const led = cut.kerf === 'controller';
  const free = cutFree(done, kerf, led ? kerf : cut.radius, around.clipper);
  const way = besideWay({ ...around, kerf, led, scrapOnLeft: cut.pierce?.scrapOnLeft ?? true, free }, seam);
  if (way === 'fallen' && open <= HANGS * kerf) return fromStroke(now + 1, open);
  return typeof way === 'string' ? way : then(fromBeside(cut, starts[now], way, seam), seam);
}

/** A cut from a place beside it on, led in to a place of one of its strokes. */
function fromBeside(cut: CutResult, pierce: number, way: Place, seam: Seam): CutResult {
  const { path } = cut;
  const builder = new PathBuilder();
  const newNumber = new Map<number, number>();
  const append = (k: number, x: number, y: number, rapid = path.rapid[k]) => {
    const z = path.xyz[3 * k + 2];
    if (rapid) builder.rapid(x, y, z);
    else builder.to(x, y, z, path.feed[k], path.power[k]);
    newNumber.set(k, builder.length - 1);
  };
  // Down as at the pierce of its stroke, but beside the seam.
  const from = wayTo(path, pierce);
  for (let k = from; k <= pierce + 1; k++) append(k, way.x, way.y, k === from ? 1 : path.rapid[k]);
  builder.to(seam.x, seam.y, path.xyz[3 * seam.point + 2], path.feed[seam.point], 1);
  for (let k = seam.point; k < path.power.length; k++) append(k, path.xyz[3 * k], path.xyz[3 * k + 1]);
  return { ...cut, path: builder.done(), pierce: cut.pierce && piercingMoved(cut.pierce, (k) => newNumber.get(k)) };
}

/** Ways along which a path cuts, x and y in turn: before one of its points, and, where it cuts on its way there, to a place on that. */
export function cutWays({ xyz, power }: Path, until = power.length, at?: Place): number[][] {
  const ways: number[][] = [];
  for (let k = 1; k < power.length && k <= until; k++) {
    if (power[k] === 0 || (k === until && !at)) continue;
    if (power[k - 1] === 0) ways.push([xyz[3 * k - 3], xyz[3 * k - 2]]);
    if (k === until) ways.at(-1)!.push(at!.x, at!.y);
    else ways.at(-1)!.push(xyz[3 * k], xyz[3 * k + 1]);
  }
  return ways;
}

/** How far a path goes from one of its points to the one before another, and from there to a place, mm. */
function alongTo({ xyz }: Path, from: number, to: number, { x, y }: { x: number; y: number }): number {
  let length = 0;
  for (let k = from + 1; k < to; k++)
    length += Math.hypot(xyz[3 * k] - xyz[3 * k - 3], xyz[3 * k + 1] - xyz[3 * k - 2]);
  return length + Math.hypot(x - xyz[3 * to - 3], y - xyz[3 * to - 2]);
}

/**
 * So near to where a kerf closes nothing holds any more what it goes round; and so near what it was being cut from may
 * be free, in kerfs.
 */
const HOLDS = 1.5;
const HANGS = 4;

/** How much is not cut of a kerf that goes round, up to where it closes, mm; 0 where it had closed, without end where none does. */
function openLeft({ path, pierce }: CutResult, start: number, seam: Seam): number {
  const { xyz, power } = path;
  let end = start + 1;
  while (end + 1 < power.length && power[end + 1] > 0) end++;
  const closing = pierce?.frees.find(({ point }) => point > start && point <= end);
  if (!closing) return Infinity;
  const { point, before } = closing;
  if (seam.point > point) return 0;
  const [x, y] = [xyz[3 * seam.point], xyz[3 * seam.point + 1]];
  const rest = alongTo(path, seam.point, point + 1, { x: xyz[3 * point], y: xyz[3 * point + 1] });
  return Math.max(0, Math.hypot(x - seam.x, y - seam.y) + rest - before);
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
    pierce: pierce && piercingMoved(pierce, (k) => (k < from ? undefined : k - from)),
  };
}
