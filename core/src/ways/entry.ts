import type { Track } from '../motion/track.ts';
import { CutProblem } from './cut-problem.ts';

/** How the bit gets down to a new depth: along the track, in a circle beside its start, or straight. */
export interface Entry {
  kind: 'ramp' | 'helix' | 'plunge';
  /** Slope of a ramp or helix, radians. */
  angle: number;
}

/** Steeper than this a ramp is a plunge, for which an end mill's middle cuts badly: 30° (common practice: 3° to 10°). */
const STEEPEST = Math.PI / 6;

/** @throws {CutProblem} for a slope that no end mill takes, or none at all. */
export function checkSlope(angle: number): void {
  if (!(angle > 0)) throw new CutProblem('The ramp has no slope, so it would never get down; 5° is usual.');
  if (angle > STEEPEST + 1e-9)
    throw new CutProblem('The ramp is steeper than an end mill can cut, 30° at most; 5° is usual.');
}

/** A way down longer than this, mm, or of more points takes hours: the slope was not meant. */
const LONGEST_WAY_DOWN = 100_000;
const MOST_POINTS_DOWN = 100_000;

const tooShallow = () =>
  new CutProblem('The ramp is so shallow that the bit would hardly get down; make it steeper, 5° is usual.');

/** A helix is at least this share of the bit's radius wide, else a core is left that the bit cannot clear. */
const NARROWEST_HELIX = 0.2;

/** Along less than this share of the bit's diameter, there and back, a ramp is a plunge in thousands of moves. */
export const LEAST_WAY = 0.05;

/** Many laps round a ring shorter than so many diameters of the bit are all corners; along the track’s beginning it is quicker. */
const SMALL_RING = 2;
const MANY_LAPS = 8;

/** Chords of a helix's turn. */
const TURN = 36;

/**
 * Puts a way down before a track that lies at one height, from `from` down to it. A track shorter than the bit's own
 * diameter by far has no room for one: there the bit goes straight down.
 *
 * @param from height at which the bit may arrive, mm: the floor of the pass before, or the top.
 * @param room free distance around the track's first point in which a helix may turn, mm.
 * @param radius radius of the bit, mm.
 */
export function enterTrack(track: Track, from: number, entry: Entry, room: number, radius: number): Track {
  const { xyz } = track;
  const z = xyz[2];
  const drop = from - z;
  if (entry.kind === 'plunge' || !(drop > 1e-6) || xyz.length < 6) return track;
  const run = drop / Math.tan(entry.angle);
  if (run > LONGEST_WAY_DOWN) throw tooShallow();
  const width = Math.min(0.8 * radius, room);
  if (entry.kind === 'helix' && width >= NARROWEST_HELIX * radius) return enterByHelix(track, from, run, width);
  const around = track.ring > 2 ? lengthOf(xyz, track.ring) : 0;
  const whole = lengthOf(xyz, xyz.length / 3);
  const tiny = around < SMALL_RING * 2 * radius && run > MANY_LAPS * around && whole > 2 * around;
  if (around >= LEAST_WAY * 2 * radius && !tiny) return enterByRing(track, from, run, around);
  return whole >= LEAST_WAY * 2 * radius ? enterBackAndForth(track, from, run) : track;
}

/** Length of a track's first points, mm. */
export function lengthOf(xyz: ArrayLike<number>, count: number): number {
  let length = 0;
  for (let i = 3; i < 3 * count; i += 3) length += Math.hypot(xyz[i] - xyz[i - 3], xyz[i + 1] - xyz[i - 2]);
  return length;
}

function enterByHelix(track: Track, from: number, run: number, width: number): Track {
  const { xyz } = track;
  const [x, y, z] = xyz;
  const turns = Math.max(1, Math.ceil(run / (2 * Math.PI * width)));
  if (turns * TURN > MOST_POINTS_DOWN) throw tooShallow();
  const points: number[] = [];
  const steps = turns * TURN;
  for (let k = 0; k <= steps + TURN; k++) {
    const angle = (2 * Math.PI * k) / TURN;
    const height = k >= steps ? z : from + ((z - from) * k) / steps;
    points.push(x + width * Math.cos(angle), y + width * Math.sin(angle), height);
  }
  return { ...track, xyz: joined(points, xyz), closed: false, ring: 0 };
}

/** Round the first ring while going down, once round it at depth, and on. */
function enterByRing(track: Track, from: number, run: number, around: number): Track {
  const { xyz, ring } = track;
  const z = xyz[2];
  const points: number[] = [xyz[0], xyz[1], from];
  if ((run / around) * ring > MOST_POINTS_DOWN) throw tooShallow();
  let gone = 0;
  let k = 0;
  // What is gone along going down is cut again at depth: from where the ramp ends once round to the same place.
  while (gone < run) {
    const i = 3 * k;
    const j = 3 * (k + 1);
    const length = Math.hypot(xyz[j] - xyz[i], xyz[j + 1] - xyz[i + 1]);
    if (gone + length >= run) {
      const t = length > 0 ? (run - gone) / length : 1;
      points.push(xyz[i] + t * (xyz[j] - xyz[i]), xyz[i + 1] + t * (xyz[j + 1] - xyz[i + 1]), z);
      gone = run;
      break;
    }
    gone += length;
    points.push(xyz[j], xyz[j + 1], from + ((z - from) * gone) / run);
    k = (k + 1) % (ring - 1);
  }
  const endX = points[points.length - 3];
  const endY = points[points.length - 2];
  for (let step = 1; step < ring; step++) {
    const j = 3 * ((k + step) % (ring - 1));
    points.push(xyz[j], xyz[j + 1], z);
  }
  points.push(endX, endY, z);
  // On along the ring to its own start, from where the track goes on.
  for (let j = k + 1; j < ring; j++) points.push(xyz[3 * j], xyz[3 * j + 1], z);
  return { ...track, xyz: joined(points, xyz.subarray(3 * ring)), closed: false, ring: 0 };
}

/** Down along the track's beginning and back to it, as often as the slope demands. */
function enterBackAndForth(track: Track, from: number, run: number): Track {
  const way = downAlong(track.xyz, from, run);
  return way ? { ...track, xyz: joined(way, track.xyz), closed: false, ring: 0 } : track;
}

/**
 * A way down from `from` to a level line's height, there and back along its beginning, that ends where the line begins.
 * @param line x, y, z triples.
 * @param run how long it is in all, mm: the drop by the tangent of the slope.
 * @returns nothing where the line is a point.
 */
export function downAlong(line: ArrayLike<number>, from: number, run: number): number[] | undefined {
  const z = line[2];
  const n = line.length / 3;
  const whole = lengthOf(line, n);
  if (!(whole > 0) || n < 2) return undefined;
  const legs = 2 * Math.max(1, Math.ceil(run / 2 / whole));
  const leg = run / legs;
  const there: number[] = [line[0], line[1], 0];
  for (let k = 1, gone = 0; k < n && gone < leg; k++) {
    const length = Math.hypot(line[3 * k] - line[3 * k - 3], line[3 * k + 1] - line[3 * k - 2]);
    const t = gone + length > leg && length > 0 ? (leg - gone) / length : 1;
    gone = Math.min(leg, gone + length);
    there.push(
      line[3 * k - 3] + t * (line[3 * k] - line[3 * k - 3]),
      line[3 * k - 2] + t * (line[3 * k + 1] - line[3 * k - 2]),
      gone / leg,
    );
  }
  if (!((legs * there.length) / 3 <= MOST_POINTS_DOWN)) throw tooShallow();
  const points: number[] = [];
  for (let l = 0; l < legs; l++)
    for (let q = 0; q < there.length; q += 3) {
      const i = l % 2 === 0 ? q : there.length - 3 - q;
      const share = l % 2 === 0 ? there[i + 2] : 1 - there[i + 2];
      points.push(there[i], there[i + 1], from + ((z - from) * (l + share)) / legs);
    }
  return points;
}

function joined(before: readonly number[], after: Float64Array): Float64Array {
  const out = new Float64Array(before.length + after.length);
  out.set(before);
  out.set(after, before.length);
  return out;
}
