import type { MedialAxis } from '../../geometry/medial-axis.ts';

/** Where a tip stops so many of its radii or less before an end it only rounds that: a corner of 39° or more, or a stub as short. */
const CORNER = 3;

/**
 * Ends of the stretches of an axis along which the shape is narrower than a bit's flat tip; ends that the tip only rounds
 * are left out.
 *
 * @param flat radius of the tip, mm.
 * @returns x, y of both ends of each, mm.
 * @example a line of 0.2 mm by 40 mm, a tip of 0.5 mm: 40 mm of stretches; a square of 10 mm: none
 */
export function narrowPlaces({ x, y, r, edges }: MedialAxis, flat: number): number[] {
  const of = new Map<number, number>();
  const first = (n: number): number => {
    for (let at = n; ;) {
      const to = of.get(at);
      if (to === undefined) return at;
      const next = of.get(to);
      if (next !== undefined) of.set(at, next);
      at = to;
    }
  };
  const parts: { n: number; ends: number[]; out: boolean }[] = [];
  for (let e = 0; e < edges.length; e += 2) {
    const [a, b] = r[edges[e]] < r[edges[e + 1]] ? [edges[e], edges[e + 1]] : [edges[e + 1], edges[e]];
    if (r[a] >= flat) continue;
    const out = r[b] >= flat;
    // Along an edge between straight walls the width grows evenly.
    const t = out ? (flat - r[a]) / (r[b] - r[a]) : 1;
    parts.push({ n: a, ends: [x[a], y[a], x[a] + t * (x[b] - x[a]), y[a] + t * (y[b] - y[a])], out });
    const [from, to] = [first(a), out ? first(a) : first(b)];
    if (from !== to) of.set(from, to);
  }
  const places = new Map<number, { length: number; outs: number }>();
  for (const { n, ends, out } of parts) {
    const at = first(n);
    const { length, outs } = places.get(at) ?? { length: 0, outs: 0 };
    places.set(at, { length: length + Math.hypot(ends[2] - ends[0], ends[3] - ends[1]), outs: outs + Number(out) });
  }
  return parts.flatMap(({ n, ends }) => {
    const { length, outs } = places.get(first(n))!;
    return outs === 1 && length <= CORNER * flat ? [] : ends;
  });
}
