import { distanceToSegment } from './distance-to-segment.ts';

/** Chords of half a round end. */
const ROUND = 6;

/**
 * What a disc covers that goes along a way, piece by piece; the pieces overlap, each counter-clockwise.
 *
 * @param way x and y in turn. @param r radius of the disc, mm.
 * @example a way of three points: two loops
 */
export function capsules(way: ArrayLike<number>, r: number): Float64Array[] {
  const out: Float64Array[] = [];
  for (let i = 2; i < way.length; i += 2) {
    const angle = Math.atan2(way[i + 1] - way[i - 1], way[i] - way[i - 2]);
    const points: number[] = [];
    for (let k = 0; k <= 2 * ROUND + 1; k++) {
      const [x, y] = k <= ROUND ? [way[i], way[i + 1]] : [way[i - 2], way[i - 1]];
      const a = angle - Math.PI / 2 + (Math.PI * (k <= ROUND ? k : k - 1)) / ROUND;
      points.push(x + r * Math.cos(a), y + r * Math.sin(a));
    }
    out.push(Float64Array.from(points));
  }
  return out;
}

/**
 * A way with no more points than it needs to stay as near as that to all it had, mm.
 * @example thinned([0, 0, 5, 0.01, 10, 0], 0.03) // [0, 0, 10, 0]
 */
export function thinned(way: ArrayLike<number>, within: number): number[] {
  const out = [way[0], way[1]];
  for (let from = 0, i = 4; i < way.length; i += 2) {
    let k = from + 2;
    const far = () => distanceToSegment(way[k], way[k + 1], way[from], way[from + 1], way[i], way[i + 1]);
    while (k < i && far() <= within) k += 2;
    if (k < i) out.push(way[(from = i - 2)], way[from + 1]);
  }
  out.push(way[way.length - 2], way[way.length - 1]);
  return out;
}
