/** An error whose message is a sentence for the person at it: what is wrong, and what to do. */
export class Told extends Error {
  override name = 'Told';
}

/**
 * What to say of an error: its own sentence where it has one for people.
 * @example sentenceOf(new Told('Choose another bit.')) // 'Choose another bit.'
 */
export function sentenceOf(error: unknown): string {
  return error instanceof Told ? error.message : String(error);
}
