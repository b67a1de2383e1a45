import { CutProblem } from './cut-problem.ts';

/** More passes than this were not meant: 100 mm in twentieths of a millimetre. */
export const MOST_PASSES = 2000;

/**
 * Depths of the passes from `start` down to `depth`, even and none more than `perPass`, with a thin last one where
 * wanted.
 *
 * @param lastPass thickness of the last pass, mm; 0 for even passes.
 * @throws {CutProblem} for depths that leave nothing to cut.
 * @example passDepths(10, 0, 4, 0) // [3.33…, 6.66…, 10]
 * @example passDepths(10, 0, 5, 0.5) // [4.75, 9.5, 10]
 */
export function passDepths(depth: number, start: number, perPass: number, lastPass: number): number[] {
  if (!(depth > 0)) throw new CutProblem('The depth is 0, so nothing would be cut; give it a depth.');
  if (!(depth > start)) throw new CutProblem('The depth is not below the start depth; make it deeper.');
  if (!(perPass > 0)) throw new CutProblem('The depth per pass is 0; give it a depth above 0.');
  if (lastPass < 0 || lastPass >= depth - start)
    throw new CutProblem('The last pass is thicker than the whole cut; make it thinner, or 0 for even passes.');
  if (lastPass > perPass + 1e-9)
    throw new CutProblem('The last pass is thicker than a pass may be; make it thinner, or 0 for even passes.');
  // Thinner than anything a machine can follow is no pass of its own.
  const thin = lastPass > 1e-6 ? lastPass : 0;
  const main = depth - start - thin;
  const passes = Math.max(1, Math.ceil(main / perPass - 1e-9));
  if (passes > MOST_PASSES)
    throw new CutProblem(
      `At this depth per pass the cut would take ${passes < 1e9 ? passes.toLocaleString('en') : 'countless'} passes, and ${MOST_PASSES} are the most; make it larger.`,
    );
  const out = Array.from({ length: passes }, (_, k) => start + (main * (k + 1)) / passes);
  if (thin > 0) out.push(depth);
  else out[out.length - 1] = depth;
  return out;
}
