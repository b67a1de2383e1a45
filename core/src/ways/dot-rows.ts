import type { DotGrid } from '../artwork/greys/sampled.ts';
import type { ScanRow } from './scan-rows.ts';

/**
 * The lines of a scan through dots of a grid, from the bottom up.
 *
 * @param powers of each dot, in steps; 0 is off. @param share of a step, 0 to 1.
 */
export function* dotRows(
  { columns, rows, u, v, pitch }: DotGrid,
  powers: Uint8Array,
  share: Float32Array,
): Generator<ScanRow> {
  for (let row = rows - 1; row >= 0; row--) {
    const first = row * columns;
    const end = first + columns;
    let from = first;
    while (from < end && powers[from] === 0) from++;
    if (from === end) continue;
    let to = end;
    while (powers[to - 1] === 0) to--;
    let runs = 1;
    for (let k = from + 1; k < to; k++) if (powers[k] !== powers[k - 1]) runs++;
    const at = new Float64Array(runs + 1);
    const power = new Float32Array(runs);
    at[0] = u + (from - first) * pitch;
    power[0] = share[powers[from]];
    for (let k = from + 1, run = 0; k <= to; k++)
      if (k === to || powers[k] !== powers[k - 1]) {
        at[++run] = u + (k - first) * pitch;
        if (k < to) power[run] = share[powers[k]];
      }
    yield { v: v + (rows - row - 0.5) * pitch, at, power };
  }
}
