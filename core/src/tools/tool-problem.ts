import { CannotBeCut } from '../schema/cannot-be-cut.ts';

/** A tool that is not described well enough to be used; the message is one sentence. */
export class ToolProblem extends CannotBeCut {
  override name = 'ToolProblem';
}
