import Flatbush from 'flatbush';
import { boxGroups } from '../geometry/box-groups.ts';
import { capsules, thinned } from '../geometry/capsules.ts';
import { Clearance } from '../geometry/clearance.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { type Bounds, boundsOf, signedArea } from '../geometry/outline.ts';
import type { KerfLoop } from './kerf-loops.ts';

/** What comes free between loops whose kerfs run together round it, once all of these are cut: scrap, or what was to be kept. */
export interface ScrapBetween {
  points: Float64Array;
  bounds: Bounds;
  by: KerfLoop[];
}

/** Smaller than this nothing is found of it, mm². */
const SMALLEST = 0.01;
/** A web thinner than twice this holds nothing, mm. Common practice: half a millimetre beside a kerf burns away. */
const WEB = 0.25;
/** How far lines here may stray from what is cut, mm: less than a web that holds nothing. */
const ROUGH = 0.03;
/** How near to its edge the kerfs round it end, mm: rounding. */
const AT_EDGE = 0.1;

/** A line that is cut, and the ways in to it and out. */
export interface CutRound {
  loop: KerfLoop;
  /** x and y in turn. */
  ways: readonly ArrayLike<number>[];
}

/**
 * What kerfs side by side, and the ways in to them, cut free between them, though no line goes round it.
 *
 * @param beyond how far outside its line a kerf reaches, mm.
 * @example four discs of 20 mm, their middles 23 mm apart in a square, a kerf of 2 mm: the piece in their middle, by all four
 */
export function scrapBetween(cut: readonly CutRound[], beyond: number, clipper: Clipper): ScrapBetween[] {
  const r = beyond + WEB;
  const beside = new Map<number, CutRound[]>();
  for (const one of cut) beside.set(one.loop.within, [...(beside.get(one.loop.within) ?? []), one]);
  // What lies apart cuts nothing free together.
  const groups = [...beside.values()].flatMap((parts) => boxGroups(parts.map(boxOf), 2 * r).map((group) => group.map((k) => parts[k]))); // prettier-ignore
  return groups.flatMap((parts) => {
    if (parts.length < 2) return [];
    const kerfs = parts.flatMap(({ loop: { points }, ways }) => [
      ...clipper.offset(clipper.simplify([signedArea(points) > 0 ? points : reversed(points)], ROUGH), r, ROUGH),
      ...ways.flatMap((way) => capsules(thinned(way, ROUGH), r)),
    ]);
    const holes = clipper.union(kerfs, 'nonzero').filter((loop) => signedArea(loop) < -SMALLEST);
    if (holes.length === 0) return [];
    const boxes = parts.map(boxOf);
    const index = new Flatbush(parts.length);
    for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
    index.finish();
    const edges = parts.map(({ loop, ways }) => Clearance.ofLoops([loop.points, ...ways.map(thereAndBack)]));
    return holes.map((hole): ScrapBetween => {
      // As large as it is, with the edge that the webs were taken from.
      const points = clipper.offset([reversed(hole)], WEB, ROUGH).find((loop) => signedArea(loop) > 0)!;
      const bounds = boundsOf([{ points }])!;
      const { minX, minY, maxX, maxY } = bounds;
      const by = index.search(minX - 2 * r, minY - 2 * r, maxX + 2 * r, maxY + 2 * r).filter((k) => {
        for (let i = 0; i < hole.length; i += 2) if (edges[k].at(hole[i], hole[i + 1]) < r + AT_EDGE) return true;
        return false;
      });
      return { points, bounds, by: by.map((k) => parts[k].loop) };
    });
  });
}

const boxOf = ({ loop, ways }: CutRound): Bounds => boundsOf([loop, ...ways.map((way) => ({ points: Float64Array.from(way) }))])!; // prettier-ignore

/** A way as a loop with nothing in it. */
function thereAndBack(way: ArrayLike<number>): Float64Array {
  const out = [...Array.from(way)];
  for (let i = way.length - 4; i > 0; i -= 2) out.push(way[i], way[i + 1]);
  return Float64Array.from(out);
}

function reversed(loop: Float64Array): Float64Array {
  const out = new Float64Array(loop.length);
  for (let i = 0; i < loop.length; i += 2) out.set(loop.subarray(i, i + 2), loop.length - 2 - i);
  return out;
}
