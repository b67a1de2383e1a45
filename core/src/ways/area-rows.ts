import type { Loops } from '../geometry/clipper.ts';
import { checkMoves } from '../motion/too-many-moves.ts';
import type { ScanRow } from './scan-rows.ts';

/**
 * The lines of a scan through an area, all at one power.
 *
 * @param area as `Clipper.union` returns it.
 * @param angle direction of the lines, radians from x.
 * @param pitch distance between them, mm: just that, and as far from the area's one side as from the other.
 */
export function areaRows(area: Loops, angle: number, pitch: number, power: number): ScanRow[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let [low, high] = [Infinity, -Infinity];
  for (const loop of area)
    for (let i = 0; i < loop.length; i += 2) {
      const v = loop[i + 1] * c - loop[i] * s;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
  if (!(high > low)) return [];
  const count = Math.max(1, Math.floor((high - low) / pitch + 1e-6));
  checkMoves(4 * count, 'number of lines');
  const first = (low + high - (count - 1) * pitch) / 2;
  const crossings: number[][] = Array.from({ length: count }, () => []);
  for (const loop of area) {
    const n = loop.length;
    for (let i = 0; i < n; i += 2) {
      const j = (i + 2) % n;
      const [ua, va] = [loop[i] * c + loop[i + 1] * s, loop[i + 1] * c - loop[i] * s];
      const [ub, vb] = [loop[j] * c + loop[j + 1] * s, loop[j + 1] * c - loop[j] * s];
      // Half open, so that a corner on a line counts once.
      const [from, to] = [Math.min(va, vb), Math.max(va, vb)];
      for (let row = Math.max(0, Math.ceil((from - first) / pitch)); row < count; row++) {
        const v = first + row * pitch;
        if (v >= to) break;
        if (v >= from) crossings[row].push(ua + ((v - va) * (ub - ua)) / (vb - va));
      }
    }
  }
  return crossings.flatMap((all, row): ScanRow[] => {
    const at = stretches(all);
    if (at.length === 0) return [];
    const powers = new Float32Array(at.length - 1);
    for (let k = 0; k < powers.length; k += 2) powers[k] = power;
    return [{ v: first + row * pitch, at, power: powers }];
  });
}

/** Shorter stretches and gaps than this are none, mm. */
const SHORTEST = 0.005;

/** Ends of the stretches inside, from crossings in any order. */
function stretches(crossings: number[]): Float64Array {
  crossings.sort((a, b) => a - b);
  const out: number[] = [];
  for (let k = 0; k + 1 < crossings.length; k += 2) {
    const [from, to] = [crossings[k], crossings[k + 1]];
    if (to - from < SHORTEST) continue;
    if (out.length > 0 && from - out[out.length - 1] < SHORTEST) out[out.length - 1] = to;
    else out.push(from, to);
  }
  return Float64Array.from(out);
}
