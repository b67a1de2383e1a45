import { type Loops, lengthOf } from './outline.ts';

/** Shapes that share less than this share nothing, mm: rounding. */
const LEAST = 0.05;

/**
 * How much of their lines shapes share that do not overlap, mm: it is no outline of what they cover together.
 *
 * @param parts what each of them covers.
 * @param together what all of them cover.
 * @example two squares of 10 mm side by side: 10
 */
export function sharedLines(parts: readonly Loops[], together: Loops): number {
  const shared = (around(parts.flat()) - around(together)) / 2;
  return shared < LEAST ? 0 : shared;
}

const around = (loops: Loops) => loops.reduce((sum, points) => sum + lengthOf({ points, closed: true }), 0);
