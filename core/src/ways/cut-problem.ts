/** Settings that cannot be cut; the message is one sentence that says what is wrong and what to do. */
export class CutProblem extends Error {
  override name = 'CutProblem';
}
