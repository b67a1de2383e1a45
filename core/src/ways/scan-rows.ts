import type { Limits } from '../document/limits.ts';
import type { PathBuilder, Shade } from '../motion/path.ts';

/** A straight line of a scan: its height across the lines, and the places along them between which its power is one. */
export interface ScanRow {
  v: number;
  /** One more than there are powers, rising, mm. */
  at: Float64Array;
  /** 0 to 1; the first and the last are above 0. */
  power: Float32Array;
}

export interface Scanning {
  /** Direction of the lines, radians from x. */
  angle: number;
  /** mm/min. */
  feed: number;
  /** Every other line is gone back along, instead of each from the same side. */
  bothWays: boolean;
  limits: Limits;
  /** How much later than told the power comes, s: lines are told so much earlier. */
  lag: number;
}

/** What a scan came to. */
export interface Scanned {
  lines: number;
  /** How far the head runs on beside each line, mm. */
  runOut: number;
  /** Empty stretches inside lines that are jumped over. */
  jumps: number;
}

/** mm/s² to mm/min². */
const PER_MINUTE2 = 3600;

/** Speed and acceleration of a head along a direction, mm/min and mm/min². */
function along(angle: number, feed: number, { speed, acceleration }: Limits): { v: number; a: number; most: number } {
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const least = (x: number, y: number) => Math.min(c > 1e-12 ? x / c : Infinity, s > 1e-12 ? y / s : Infinity);
  const most = least(speed.x, speed.y);
  return { v: Math.min(feed, most), a: PER_MINUTE2 * least(acceleration.x, acceleration.y), most };
}

/**
 * How far a head needs from standing still to its feed, and from there to a stand again: v²/2a.
 *
 * @param angle direction, radians from x. @param feed mm/min.
 * @returns mm.
 * @example along x at 6000 mm/min and 1000 mm/s²: 100² / 2000 = 5 mm
 */
export function runOut(angle: number, feed: number, limits: Limits): number {
  const { v, a } = along(angle, feed, limits);
  return (v * v) / (2 * a);
}

/**
 * The shortest empty stretch that is sooner jumped over than gone along at the feed, even where the head comes to a stand on
 * both sides of it, mm.
 */
export function shortestJump(angle: number, feed: number, limits: Limits): number {
  const { v, a, most } = along(angle, feed, limits);
  const out = (v * v) / (2 * a);
  const minutes = (gap: number) => {
    const rest = gap - 2 * out;
    if (rest <= 0) return Infinity;
    const rapid = rest > (most * most) / a ? rest / most + most / a : 2 * Math.sqrt(rest / a);
    return (2 * v) / a + rapid;
  };
  let [low, high] = [2 * out, 2 * out + 1];
  while (minutes(high) > high / v && high < 1e5) high *= 2;
  if (high >= 1e5) return Infinity;
  while (high - low > 0.01) {
    const middle = (low + high) / 2;
    if (minutes(middle) > middle / v) low = middle;
    else high = middle;
  }
  return high;
}

/** A little more than is needed, mm: controllers round. */
const SPARE = 0.05;

/**
 * Lays the lines of a scan: each come to from beside it, so that the head goes at its feed all along it, with no power on
 * beside it, and run out of.
 *
 * @param rows in the order in which they are gone along. @param step told now and then how many lines are laid.
 * @throws {TooManyMoves} where no program should have so many moves, or changes of power.
 */
export async function layRows(
  builder: PathBuilder,
  rows: Iterable<ScanRow>,
  scanning: Scanning,
  step?: (lines: number) => Promise<void> | void,
): Promise<Scanned> {
  const { angle, feed, bothWays, limits, lag } = scanning;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const beside = runOut(angle, feed, limits) + SPARE;
  const jump = shortestJump(angle, feed, limits);
  const { v: speed } = along(angle, feed, limits);
  const earlier = (speed / 60) * lag;
  const done: Scanned = { lines: 0, runOut: beside, jumps: 0 };
  for (const { v, at, power } of rows) {
    const back = bothWays && done.lines % 2 === 1;
    const way = back ? -1 : 1;
    const place = (u: number): [number, number, number] => [u * c - v * s, u * s + v * c, 0];
    const pieces = piecesOf(at, power, jump);
    done.jumps += pieces.length - 1;
    for (const [from, to] of back ? pieces.toReversed() : pieces) {
      const [first, last] = back ? [at[to], at[from]] : [at[from], at[to]];
      const moved = -way * earlier;
      builder.rapid(...place(first + moved - way * beside));
      builder.to(...place(first + moved), feed, 0);
      builder.shaded(...place(last + moved), feed, shadeOf(at, power, from, to, back));
      builder.to(...place(last + moved + way * beside), feed, 0);
    }
    done.lines++;
    if (done.lines % 128 === 0) await step?.(done.lines);
  }
  return done;
}

/** Where a line is broken off and begun again: numbers of places, from the first to the last of each piece. */
function piecesOf(at: Float64Array, power: Float32Array, jump: number): [from: number, to: number][] {
  const out: [number, number][] = [];
  let from = 0;
  for (let k = 0; k < power.length; k++) {
    if (power[k] > 0 || at[k + 1] - at[k] < jump) continue;
    out.push([from, k]);
    from = k + 1;
  }
  out.push([from, power.length]);
  return out;
}

function shadeOf(at: Float64Array, power: Float32Array, from: number, to: number, back: boolean): Shade {
  const n = to - from;
  const ends = new Float64Array(n);
  if (!back) {
    for (let k = 0; k < n; k++) ends[k] = at[from + k + 1] - at[from];
    return { ends, power: power.subarray(from, to) };
  }
  const turned = new Float32Array(n);
  for (let k = 0; k < n; k++) {
    ends[k] = at[to] - at[to - k - 1];
    turned[k] = power[to - k - 1];
  }
  return { ends, power: turned };
}
