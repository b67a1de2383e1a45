import type { Loops } from './outline.ts';

/**
 * A loop that comes to a point again is several loops that touch there, in the same direction. What is drawn in one
 * direction or the other, or begun elsewhere, is parted into the same loops. Spikes without area are dropped.
 *
 * @param loop points x, y, mm; equal points are equal to the last digit.
 * @example partedLoops(Float64Array.of(0, 0, 2, 0, 1, 1, 2, 2, 0, 2, 1, 1)).length // 2
 */
export function partedLoops(loop: Float64Array): Loops {
  const n = loop.length / 2;
  const place = firstVisits(loop);
  if (place === undefined) return [loop];
  const loops: Loops = [];
  const open: number[] = [];
  const keep = (points: number[]) => {
    if (points.length > 2) loops.push(Float64Array.from(points.flatMap((k) => [loop[2 * k], loop[2 * k + 1]])));
  };
  const at = new Map<number, number>();
  for (let k = 0; k < n; k++) {
    const before = at.get(place[k]);
    if (before !== undefined) {
      const closed = open.splice(before);
      for (const gone of closed) at.delete(place[gone]);
      keep(closed);
    }
    at.set(place[k], open.length);
    open.push(k);
  }
  keep(open);
  return loops;
}

/** For each point the number of the first one at its place; nothing where each place is visited once. */
function firstVisits(loop: Float64Array): Uint32Array | undefined {
  const first = Uint32Array.from({ length: loop.length / 2 }, (_, k) => k);
  const sorted = first.slice().sort((a, b) => loop[2 * a] - loop[2 * b] || loop[2 * a + 1] - loop[2 * b + 1] || a - b);
  let again = false;
  for (let i = 1; i < sorted.length; i++) {
    const [before, k] = [sorted[i - 1], sorted[i]];
    if (loop[2 * before] !== loop[2 * k] || loop[2 * before + 1] !== loop[2 * k + 1]) continue;
    first[k] = first[before];
    again = true;
  }
  return again ? first : undefined;
}
