import { boxGroups } from '../geometry/box-groups.ts';
import { capsules, thinned } from '../geometry/capsules.ts';
import { Clearance } from '../geometry/clearance.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { boundsOf, contains, signedArea } from '../geometry/outline.ts';

/** How far ways here may stray from those that are cut, as a share of the kerf. */
const ROUGH = 0.02;
/** How near to its edge the kerf that bounds a piece ends, as a share of the kerf: rounding. */
const AT_EDGE = 0.1;
/** How far from a kerf’s middle metal is that holds something, in kerfs: half of one, and where a web is thin, more. */
const REACHES = [0.75, 0.5];

/**
 * Whether what lies beside the end of a kerf was cut free by it, with all kerfs before.
 *
 * @param ways the kerfs’ middles, x and y in turn, in the order in which they were cut; the end of the last is looked at.
 * @param kerf its width, mm. @param beyond how far the kerfs reach beside their ways, mm.
 * @returns of a place in mm whether it lies in a piece that nothing wider than half a kerf holds, and which the last of them bounds.
 * @example a way round a square of 10 mm that stops 1 mm before it closes, a kerf of 1 mm: true in its middle, false outside
 */
export function cutFree(
  ways: readonly (readonly number[])[],
  kerf: number,
  beyond: number,
  clipper: Clipper,
): (x: number, y: number) => boolean {
  const stroke = lastStroke(ways).flatMap((way) => along(way, kerf / 2));
  const boxes = ways.map((way) => boundsOf([{ points: Float64Array.from(way) }])!);
  const near = boxGroups(boxes, 4 * beyond).find((group) => group.includes(ways.length - 1))!;
  const rough = near.map((k) => thinned(ways[k], ROUGH * kerf));
  const pieces = REACHES.flatMap((reach) => {
    const r = beyond + (reach - 0.5) * kerf;
    const all = clipper.union(rough.flatMap((way) => capsules(way, r)), 'nonzero'); // prettier-ignore
    return all
      .filter((loop) => signedArea(loop) < 0)
      .map((loop) => ({ loop, r, edge: Clearance.ofLoops([loop]) }))
      .filter(({ edge }) => stroke.some(({ x, y }) => edge.at(x, y) < r + AT_EDGE * kerf));
  });
  // Beside a kerf it may lie within what is taken for one; beyond the kerf it is farther away than that.
  return (px, py) => pieces.some(({ loop, r, edge }) => contains(loop, px, py) || edge.at(px, py) < r);
}

/** The last way, and those before it that end where the one after them was led in to. */
function lastStroke(ways: readonly (readonly number[])[]): (readonly number[])[] {
  let k = ways.length - 1;
  while (k > 0 && ways[k - 1].at(-2) === ways[k][2] && ways[k - 1].at(-1) === ways[k][3]) k--;
  return ways.slice(k);
}

/** Places along a way, each so far from the next, mm, and its end. */
function along(way: readonly number[], each: number): { x: number; y: number }[] {
  const out = [{ x: way.at(-2)!, y: way.at(-1)! }];
  let next = 0;
  for (let i = 2; i < way.length; i += 2) {
    const [dx, dy] = [way[i] - way[i - 2], way[i + 1] - way[i - 1]];
    const length = Math.hypot(dx, dy);
    for (; next <= length; next += each) out.push({ x: way[i - 2] + (dx * next) / (length || 1), y: way[i - 1] + (dy * next) / (length || 1) }); // prettier-ignore
    next -= length;
  }
  return out;
}
