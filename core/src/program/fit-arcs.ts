import type { Path } from '../motion/path.ts';

/** A move of a program: straight to a point of the path, or round an arc that stands for several of its moves. */
export interface FittedMove {
  /** The path's point where the move ends. */
  point: number;
  /** Centre of the arc, sheet coordinates, mm; undefined for a straight move. */
  arc?: { x: number; y: number; clockwise: boolean };
}

/** How far an arc may lie from the path it stands for, mm, at points and between them. */
export const ARC_FIT_TOLERANCE = 0.003;

/** So much deeper or less deep an arc may leave what a cone cuts, mm; of a steep one it may lie so far off as the second nevertheless. */
const DEEP = 0.004;
const STEEP = 0.002;

/** How far an arc may lie from its path where the bit cuts so much wider a mm of depth, mm. */
function toleranceOn(slope: number): number {
  return slope > 0 ? Math.min(ARC_FIT_TOLERANCE, Math.max(STEEP, DEEP * slope)) : ARC_FIT_TOLERANCE;
}

/** Fewer moves than this are left straight. */
const FEWEST = 3;

/** Arcs turn less than this, radians, so that controllers never take one for its rest. */
const MOST_TURN = (170 * Math.PI) / 180;

export interface ArcLimits {
  /** How much wider the bit cuts a mm of depth, mm: a depth that is off counts as a width that is off by so much. */
  slope?: number;
  /** Arcs turn less than this, radians. */
  mostTurn?: number;
}

/** Larger circles than this are as good as straight, mm. */
const LARGEST = 2000;

/**
 * Puts true arcs in place of runs of short moves that lie on a circle within the tolerance, all at one feed and power,
 * level or rising evenly. The longest run that fits is taken from each point on.
 *
 * @example a circle of 200 chords: three arcs
 */
export function fitArcs(path: Path, { slope = 0, mostTurn = MOST_TURN }: ArcLimits = {}): FittedMove[] {
  const within = { slope, mostTurn, tolerance: toleranceOn(slope) };
  const { feed, rapid, shades } = path;
  const moves: FittedMove[] = [];
  let limit = 0;
  for (let i = 0; i + 1 < feed.length;) {
    if (i >= limit) limit = lastWithSameFeed(path, i);
    let best = i + 1;
    let arc: FittedMove['arc'];
    if (!rapid[i + 1] && !shades?.has(i + 1) && limit - i >= FEWEST) {
      // The reach doubles while it fits, then is halved back to the last that does.
      let reach = FEWEST;
      let step = FEWEST;
      while (step > 0 && i + reach <= limit) {
        const found = arcThrough(path, i, i + reach, within);
        if (found) {
          [best, arc] = [i + reach, found];
          if (i + reach === limit) break;
          step *= 2;
          reach = Math.min(limit - i, reach + step);
        } else break;
      }
      let lo = best;
      let hi = i + reach;
      while (arc && hi - lo > 1) {
        const mid = (lo + hi) >> 1;
        const found = arcThrough(path, i, mid, within);
        if (found) [lo, best, arc] = [mid, mid, found];
        else hi = mid;
      }
    }
    moves.push({ point: best, arc });
    i = best;
  }
  return moves;
}

function lastWithSameFeed({ feed, rapid, power, shades }: Path, i: number): number {
  let j = i + 1;
  while (
    j + 1 < feed.length &&
    feed[j + 1] === feed[i + 1] &&
    rapid[j + 1] === rapid[i + 1] &&
    power[j + 1] === power[i + 1] &&
    !shades?.has(j + 1)
  )
    j++;
  return j;
}

function arcThrough(
  { xyz }: Path,
  from: number,
  to: number,
  { slope, mostTurn, tolerance }: Required<ArcLimits> & { tolerance: number },
): FittedMove['arc'] {
  const middle = (from + to) >> 1;
  const [ax, ay] = [xyz[3 * from], xyz[3 * from + 1]];
  const bx = xyz[3 * middle] - ax;
  const by = xyz[3 * middle + 1] - ay;
  const cx = xyz[3 * to] - ax;
  const cy = xyz[3 * to + 1] - ay;
  const d = 2 * (bx * cy - by * cx);
  const b2 = bx * bx + by * by;
  const c2 = cx * cx + cy * cy;
  if (Math.abs(d) < 1e-9 * Math.sqrt(b2 * c2) || c2 === 0) return undefined;
  const ux = (cy * b2 - by * c2) / d;
  const uy = (bx * c2 - cx * b2) / d;
  const r = Math.hypot(ux, uy);
  if (!(r < LARGEST)) return undefined;
  const x = ax + ux;
  const y = ay + uy;
  const clockwise = d < 0;
  const length = runLength(xyz, from, to);
  const drop = xyz[3 * to + 2] - xyz[3 * from + 2];
  let turned = 0;
  let gone = 0;
  for (let k = from + 1; k <= to; k++) {
    const px = xyz[3 * k - 3] - x;
    const py = xyz[3 * k - 2] - y;
    const qx = xyz[3 * k] - x;
    const qy = xyz[3 * k + 1] - y;
    const off = Math.max(Math.abs(distance(qx, qy) - r), Math.abs(distance((px + qx) / 2, (py + qy) / 2) - r));
    if (off > tolerance) return undefined;
    const turn = Math.atan2(px * qy - py * qx, px * qx + py * qy);
    if (clockwise ? turn >= 0 : turn <= 0) return undefined;
    turned += Math.abs(turn);
    gone += distance(qx - px, qy - py);
    const z = xyz[3 * from + 2] + (length > 0 ? (drop * gone) / length : 0);
    const deep = Math.abs(xyz[3 * k + 2] - z);
    if (deep > ARC_FIT_TOLERANCE || off + slope * deep > tolerance) return undefined;
  }
  return turned < mostTurn ? { x, y, clockwise } : undefined;
}

/** Math.hypot costs several times as much, and the lengths here are plain. */
function distance(dx: number, dy: number): number {
  return Math.sqrt(dx * dx + dy * dy);
}

function runLength(xyz: Float64Array, from: number, to: number): number {
  let length = 0;
  for (let k = from + 1; k <= to; k++) length += distance(xyz[3 * k] - xyz[3 * k - 3], xyz[3 * k + 1] - xyz[3 * k - 2]);
  return length;
}
