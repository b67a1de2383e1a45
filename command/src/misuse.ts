/** A command used wrongly: one sentence, exit code 2. */
export class Misuse extends Error {
  override name = 'Misuse';
}
