import { CannotBeCut } from '../schema/cannot-be-cut.ts';

/** Settings that cannot be cut; the message is one sentence that says what is wrong and what to do. */
export class CutProblem extends CannotBeCut {
  override name = 'CutProblem';
}
