import { BitProblem } from '../bits/bit.ts';
import { TriangulationError } from '../geometry/outline-samples.ts';
import { TooManyMoves } from '../motion/too-many-moves.ts';
import { OwnFault } from './checked.ts';
import { CutProblem } from './cut-problem.ts';

/**
 * Whether an error says in a sentence for the carver that something cannot be cut: by its settings or outlines, or because
 * Kerbe itself did not get it right.
 */
export function cannotBeCut(error: unknown): error is Error {
  return (
    error instanceof CutProblem ||
    error instanceof OwnFault ||
    error instanceof TriangulationError ||
    error instanceof TooManyMoves ||
    error instanceof BitProblem
  );
}
