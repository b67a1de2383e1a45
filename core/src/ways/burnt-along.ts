import { flatTrack, type Track } from '../motion/track.ts';
import type { ScanRow } from './scan-rows.ts';

/**
 * What the lines of a scan burn, a track for each stretch with power on.
 *
 * @param angle direction of the lines, radians from x.
 * @example burntAlong([{ v: 3, at: Float64Array.of(1, 2, 4, 5), power: Float32Array.of(1, 0, 1) }], 0).length // 2
 */
export function burntAlong(rows: readonly ScanRow[], angle: number): Track[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return rows.flatMap(({ v, at, power }) =>
    [...power].flatMap((share, k) => {
      if (share === 0) return [];
      const [a, b] = [at[k], at[k + 1]];
      return [flatTrack([a * c - v * s, a * s + v * c, b * c - v * s, b * s + v * c], 0, false)];
    }),
  );
}
