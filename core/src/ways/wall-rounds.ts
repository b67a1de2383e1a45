import Flatbush from 'flatbush';
import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { flatTrack, type Track } from '../motion/track.ts';
import { directed } from './directed.ts';

/** How much further than the allowance from a wall the rough round may be where the finish begins, mm. */
const BESIDE = 0.005;

/**
 * Rounds along a wall. Each begins beside it, where all is cleared, so that the bit comes down in air and meets the allowance
 * from the side: over the middle of a side, the longest where that is so.
 *
 * @param wall the area on its left. @param cleared tracks along which all is cut before.
 * @param finish how far the bit stayed off the wall along these, mm.
 * @example a wall round a square of 10 mm, cleared 0.5 mm inside: from 0.5 mm beside the middle of its first side, and back
 */
export function wallRounds(wall: Loops, cleared: readonly Track[], finish: number, climb: boolean): Track[] {
  const lines = edgesOf(cleared);
  let near: ReturnType<typeof cornersOf> | undefined;
  return wall.map((loop) => {
    const side = lines && sideBeside(loop, lines, finish);
    if (side) return round(directed(flatTrack(side.from, 0, true), climb), side.x, side.y);
    near ??= cornersOf(cleared);
    const corner = near && cornerBeside(loop, near, finish);
    if (!corner) return directed(flatTrack(loop, 0, true), climb);
    return round(directed(flatTrack(begunAt(loop, corner.i), 0, true), climb), corner.x, corner.y);
  });
}

/** A closed track that is come to from a place, and left to it. */
function round({ xyz }: Track, x: number, y: number): Track {
  return { xyz: Float64Array.of(x, y, 0, ...xyz, x, y, 0), closed: true, ring: 0, oneWay: true };
}

/** A loop from one of its points on, counted in numbers. */
function begunAt(loop: Float64Array, i: number): Float64Array {
  const out = new Float64Array(loop.length);
  out.set(loop.subarray(i));
  out.set(loop.subarray(0, i), loop.length - i);
  return out;
}

/** The longest side beside whose middle all is cleared: the loop from there, and the place. */
function sideBeside(loop: Float64Array, cleared: Clearance, finish: number) {
  const n = loop.length;
  const length = (i: number) => Math.hypot(loop[(i + 2) % n] - loop[i], loop[(i + 3) % n] - loop[i + 1]);
  const sides = Array.from({ length: n / 2 }, (_, k) => ({ i: 2 * k, length: length(2 * k) })).sort((a, b) => b.length - a.length); // prettier-ignore
  for (const { i, length } of sides) {
    if (length < BESIDE) return undefined;
    const j = (i + 2) % n;
    const [mx, my] = [(loop[i] + loop[j]) / 2, (loop[i + 1] + loop[j + 1]) / 2];
    const x = mx - ((loop[j + 1] - loop[i + 1]) * finish) / length;
    const y = my + ((loop[j] - loop[i]) * finish) / length;
    if (cleared.at(x, y) <= BESIDE) return { x, y, from: Float64Array.of(mx, my, ...begunAt(loop, j)) };
  }
  return undefined;
}

/** The corner of a loop that is nearest to where all is cleared, if it is as near as the allowance. */
function cornerBeside(loop: Float64Array, { index, at }: NonNullable<ReturnType<typeof cornersOf>>, finish: number) {
  let best: { i: number; x: number; y: number } | undefined;
  let nearest = finish + BESIDE;
  for (let i = 0; i < loop.length; i += 2) {
    const [found] = index.neighbors(loop[i], loop[i + 1], 1, nearest);
    if (found === undefined) continue;
    const [x, y] = [at[2 * found], at[2 * found + 1]];
    const d = Math.hypot(x - loop[i], y - loop[i + 1]);
    if (d < nearest) [best, nearest] = [{ i, x, y }, d];
  }
  return best;
}

/** The corners of tracks, to look for those nearest to a place. */
function cornersOf(tracks: readonly Track[]) {
  const at = tracks.flatMap(({ xyz }) => Array.from({ length: (2 * xyz.length) / 3 }, (_, k) => xyz[3 * (k >> 1) + (k % 2)])); // prettier-ignore
  if (at.length === 0) return undefined;
  const index = new Flatbush(at.length / 2);
  for (let k = 0; k < at.length; k += 2) index.add(at[k], at[k + 1], at[k], at[k + 1]);
  index.finish();
  return { index, at };
}

/** All moves of tracks as edges. */
function edgesOf(tracks: readonly Track[]): Clearance | undefined {
  const count = tracks.reduce((sum, { xyz }) => sum + Math.max(0, xyz.length / 3 - 1), 0);
  if (count === 0) return undefined;
  const [ax, ay, bx, by] = [0, 1, 2, 3].map(() => new Float64Array(count));
  let n = 0;
  for (const { xyz } of tracks)
    for (let i = 3; i < xyz.length; i += 3, n++)
      [ax[n], ay[n], bx[n], by[n]] = [xyz[i - 3], xyz[i - 2], xyz[i], xyz[i + 1]];
  return new Clearance(n, ax, ay, bx, by);
}
