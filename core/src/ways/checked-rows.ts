import type { Loops } from '../geometry/clipper.ts';
import { distanceToSegment } from '../geometry/distance-to-segment.ts';
import { Sides } from '../geometry/sides.ts';
import { past, PAST_OUTLINE } from './checked.ts';
import type { ScanRow } from './scan-rows.ts';

/**
 * Looks at the lines of a scan against the outline itself, not against what they were made from: each edge of it against the
 * lines that come near.
 *
 * @param rows in the order of their heights. @param angle direction of the lines, radians from x.
 * @param outline loops of the area that is burnt. @param radius of the beam, mm.
 * @throws {OwnFault} where it would burn nearer to the outline than its radius, or outside it.
 */
export function checkRows(rows: readonly ScanRow[], angle: number, outline: Loops, radius: number): void {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const least = radius - PAST_OUTLINE;
  const fail = (by: number, u: number, v: number) => past(by, u * c - v * s, u * s + v * c);
  const turned = outline.map((loop) => Float64Array.from(loop, (_, i) => (i % 2 ? loop[i] * c - loop[i - 1] * s : loop[i] * c + loop[i + 1] * s))); // prettier-ignore
  const sides = new Sides(turned);
  for (const { v, at, power } of rows)
    for (let k = 0; k < power.length; k++) {
      const middle = (at[k] + at[k + 1]) / 2;
      if (power[k] > 0 && !sides.inside(middle, v)) throw fail(radius, middle, v);
    }
  if (least <= 0) return;
  for (const loop of turned)
    for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
      const [au, av, bu, bv] = [loop[j], loop[j + 1], loop[i], loop[i + 1]];
      const [low, high] = [Math.min(au, bu) - least, Math.max(au, bu) + least];
      const to = Math.max(av, bv) + least;
      for (
        let n = first(rows.length, (k) => rows[k].v >= Math.min(av, bv) - least);
        n < rows.length && rows[n].v <= to;
        n++
      ) {
        // prettier-ignore
        const { v, at, power } = rows[n];
        for (let k = first(power.length, (q) => at[q + 1] >= low); k < power.length && at[k] <= high; k++) {
          if (power[k] === 0) continue;
          const away = apart(at[k], at[k + 1], v, au, av, bu, bv);
          if (away < least) throw fail(radius - away, nearest(at[k], at[k + 1], v, au, av, bu, bv), v);
        }
      }
    }
}

/** Distance between a line from `a` to `b` at a height and an edge. */
function apart(a: number, b: number, v: number, au: number, av: number, bu: number, bv: number): number {
  if (av > v !== bv > v) {
    const u = au + ((v - av) * (bu - au)) / (bv - av);
    if (u >= a && u <= b) return 0;
  }
  return Math.min(
    distanceToSegment(au, av, a, v, b, v),
    distanceToSegment(bu, bv, a, v, b, v),
    distanceToSegment(a, v, au, av, bu, bv),
    distanceToSegment(b, v, au, av, bu, bv),
  );
}

/** Where a line from `a` to `b` at a height comes nearest to an edge that it does not cross. */
function nearest(a: number, b: number, v: number, au: number, av: number, bu: number, bv: number): number {
  const on = (u: number) => Math.max(a, Math.min(b, u));
  const away = (u: number) => distanceToSegment(u, v, au, av, bu, bv);
  return [a, b, on(au), on(bu)].reduce((best, u) => (away(u) < away(best) ? u : best));
}

/** The first number below `count` for which something holds that holds for all after it; `count` where it does for none. */
function first(count: number, holds: (k: number) => boolean): number {
  let [low, high] = [0, count];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
