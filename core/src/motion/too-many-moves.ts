import { CannotBeCut } from '../schema/cannot-be-cut.ts';

/** Moves of one cut at most: a program of them has some hundred megabytes, and takes a machine days. */
export const MOST_MOVES = 3_000_000;

/** Changes of power along the moves of one cut at most: a picture of 400 by 400 mm, 10 lines a millimetre, whose every dot differs. */
export const MOST_CHANGES = 16_000_000;

/** A cut that would have more moves than any program should; the message is one sentence that says what to do. */
export class TooManyMoves extends CannotBeCut {
  override name = 'TooManyMoves';
}

/**
 * Refuses work before it is done.
 * @param moves how many moves it will come to, about. @param setting what makes them so many, as in “the step”.
 * @throws {TooManyMoves}
 * @example checkMoves(8e6, 'step') // throws “With this step the cut would have about 8 million moves, and …”
 */
export function checkMoves(moves: number, setting: string): void {
  if (moves <= MOST_MOVES) return;
  const millions = moves < 1e12 ? `about ${Math.ceil(moves / 1e6).toLocaleString('en')} million` : 'countless';
  throw new TooManyMoves(
    `With this ${setting} the cut would have ${millions} moves, and ${MOST_MOVES / 1e6} million are the most; make the ${setting} larger, or cut fewer outlines at once.`,
  );
}
