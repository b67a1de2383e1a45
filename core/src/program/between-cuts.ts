import type { Limits } from '../document/limits.ts';
import { type Path, pathAlong } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import type { Dialect } from './dialect.ts';

/** What a program spends beside one of its cuts, minutes. */
export interface BesideCut {
  /** The spindle’s start, and the way from the cut before where that has the same bit. */
  before: number;
  /** After a program’s last cut: up over all that holds the work. */
  after: number;
}

/**
 * What programs spend between their cuts: up to where nothing stands in the way, across and down, spindle starts, and
 * the last way up. The way to a bit’s first cut is left out, since the bit comes from where it was changed or measured,
 * and so is the way to where it is parked, since nothing in a job says where on the machine its stock lies.
 *
 * @param cuts in the order they are made; each with the id of its bit.
 * @param approach height over all that holds the work, mm above the stock.
 * @example two cuts of one bit at one speed, 300 mm apart at 3000 mm/min: before the first 3 s, before the second a
 *   little over 6 s, after the first nothing
 */
export function betweenCuts(
  cuts: readonly { path: Path; bit: string; speed: number; turns: boolean; air?: boolean }[],
  approach: number,
  { bits, post }: Dialect,
  limits: Limits,
): BesideCut[] {
  const way = (...points: number[]) => planMotion(pathAlong(Float64Array.from(points)), limits).minutes;
  return cuts.map((cut, k) => {
    const { path: { xyz }, bit } = cut; // prettier-ignore
    const last = cuts.at(k - 1)!;
    const same = k > 0 && last.bit === bit;
    let before = same && post.alike(last, cut) ? 0 : post.setSeconds(cut) / 60;
    if (same) {
      const [x, y, z] = last.path.xyz.subarray(-3);
      before += way(x, y, z, x, y, approach, xyz[0], xyz[1], approach, xyz[0], xyz[1], xyz[2]);
    }
    const ends = k === cuts.length - 1 || (bits === 'one-each' && cuts[k + 1].bit !== bit);
    const [x, y, z] = xyz.subarray(-3);
    return { before, after: ends ? way(x, y, z, x, y, approach) : 0 };
  });
}
