import Flatbush from 'flatbush';
import { boxGroups } from '../geometry/box-groups.ts';
import { Clearance } from '../geometry/clearance.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { boundsOf } from '../geometry/outline.ts';
import { flatTrack } from '../motion/track.ts';
import { graft, type Tours } from './axis-tours.ts';
import { LONGEST_SPUR, ON_ROUND, tightPlaces } from './tight-places.ts';

/**
 * How far from the rough round a way into a tight place may begin, as a share of the finish allowance: where the round
 * turns off at a small angle, micrometres across are many along.
 */
const FROM_ROUND = 0.2;

/**
 * The rounds that leave an allowance, by the wall each belongs to. Into corners they go on until no more than the
 * allowance is left there, too. A wall with a place too narrow for such a round gets none: it is cut in passes itself.
 */
export function roughRounds(
  loops: Loops,
  { diameter, side, finish = 0 }: { diameter: number; side: 'outside' | 'inside' | 'on'; finish?: number },
  sign: number,
  clipper: Clipper,
  offsetBy: (distance: number) => Loops,
): Map<Float64Array, Float64Array[]> {
  const out = new Map<Float64Array, Float64Array[]>();
  if (!(finish > 0) || sign === 0) return out;
  const tight: Tours = { tours: [], ways: [] };
  // What is further apart than two allowances leaves no narrow place between, and is looked at by itself.
  for (const group of boxGroups(
    loops.map((points) => boundsOf([{ points }])!),
    4 * finish,
  )) {
    const own = group.map((k) => loops[k]);
    const { minX, minY, maxX, maxY } = boundsOf(own.map((points) => ({ points })))!;
    const room = 20 * finish;
    const [x0, y0, x1, y1] = [minX - room, minY - room, maxX + room, maxY + room];
    const centres =
      side === 'inside' ? own : clipper.difference([Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1)], own);
    // The corners of the box are nobody's.
    const inBox = (line: Float64Array) =>
      line.every((v, i) => (i % 2 ? v > y0 + room / 2 && v < y1 - room / 2 : v > x0 + room / 2 && v < x1 - room / 2));
    const { tours, ways } = tightPlaces(centres, finish, LONGEST_SPUR * diameter);
    tight.tours.push(...tours.filter(inBox));
    tight.ways.push(...ways.filter(inBox));
  }
  const edges = loops.map((loop) => Clearance.ofLoops([loop]));
  const boxes = new Flatbush(loops.length);
  for (const points of loops) {
    const { minX, minY, maxX, maxY } = boundsOf([{ points }])!;
    boxes.add(minX, minY, maxX, maxY);
  }
  boxes.finish();
  /** The walls that come nearer to a place than a distance, the nearest first. */
  const wallsAt = (x: number, y: number, within: number): number[] =>
    boxes
      .search(x - within, y - within, x + within, y + within)
      .map((k) => ({ k, away: edges[k].at(x, y) }))
      .filter(({ away }) => away < within)
      .sort((p, q) => p.away - q.away)
      .map(({ k }) => k);
  // Walls that are cut in passes themselves: along a narrow place, or beside a round that is another wall's.
  const itself = new Set<number>();
  for (const way of tight.ways)
    for (let i = 0; i < way.length; i += 2) for (const k of wallsAt(way[i], way[i + 1], 1.1 * finish)) itself.add(k);
  const rough = offsetBy(sign * (diameter / 2 + finish)).map((loop) => flatTrack(loop, 0, true));
  for (const { xyz, closed } of graft(rough, tight.tours, FROM_ROUND * finish)) {
    // A place that no rough round leads into would be cut at full depth by the finish round.
    if (!closed)
      for (let i = 0; i < xyz.length; i += 3) for (const k of wallsAt(xyz[i], xyz[i + 1], 1.1 * finish)) itself.add(k);
    const [own] = wallsAt(xyz[0], xyz[1], 2 * finish + ON_ROUND);
    if (!closed || own === undefined) continue;
    const loop = new Float64Array((xyz.length / 3 - 1) * 2);
    for (let i = 0, j = 0; i < loop.length; i += 2, j += 3) {
      [loop[i], loop[i + 1]] = [xyz[j], xyz[j + 1]];
      for (const k of wallsAt(xyz[j], xyz[j + 1], finish + ON_ROUND)) if (k !== own) itself.add(k);
    }
    out.set(loops[own], [...(out.get(loops[own]) ?? []), loop]);
  }
  for (const k of itself) out.delete(loops[k]);
  return out;
}
