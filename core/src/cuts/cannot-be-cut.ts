import { BitProblem } from '../bits/bit.ts';
import { TriangulationError } from '../geometry/outline-samples.ts';
import { TooManyMoves } from '../motion/too-many-moves.ts';
import { CutProblem } from './cut-problem.ts';

/** Whether an error says of settings or outlines, in a sentence for the carver, that they cannot be cut. */
export function cannotBeCut(error: unknown): error is Error {
  return (
    error instanceof CutProblem ||
    error instanceof TriangulationError ||
    error instanceof TooManyMoves ||
    error instanceof BitProblem
  );
}
