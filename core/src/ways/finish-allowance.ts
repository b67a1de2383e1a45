import { CutProblem } from './cut-problem.ts';

/** A last round at full depth that takes more than this share of the bit sideways is no finish. */
const MOST = 0.5;

/**
 * @throws {CutProblem} for an allowance below 0, or one that no last round takes off at full depth.
 * @example checkFinish(0.6, 1) // throws “The finish allowance is more than half of the bit, …”
 */
export function checkFinish(allowance: number, diameter: number): void {
  if (allowance < 0) throw new CutProblem('The finish allowance is below 0; give 0 or a little more.');
  if (allowance > MOST * diameter)
    throw new CutProblem(
      'The finish allowance is more than half of the bit, too much to take off at full depth at once; make it smaller, or cut without one in more passes.',
    );
}
