import type { Loops } from '@kerbe/core/geometry/clipper';

/** Points along loops, no further apart than `every`, mm. */
export function sampled(loops: Loops, every: number): Float64Array {
  const out: number[] = [];
  for (const points of loops)
    for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
      const n = Math.max(1, Math.ceil(Math.hypot(points[i] - points[j], points[i + 1] - points[j + 1]) / every));
      for (let k = 0; k < n; k++)
        out.push(
          points[j] + ((points[i] - points[j]) * k) / n,
          points[j + 1] + ((points[i + 1] - points[j + 1]) * k) / n,
        );
    }
  return Float64Array.from(out);
}
