import type { Bounds } from '../geometry/outline.ts';
import { ArtworkError } from './artwork-error.ts';

/** No point of a drawing that was meant lies further from its page than this, mm. */
export const FURTHEST = 100_000;

/** Artwork larger than this, mm, fits no bench: it is twice the longest stock. */
const LARGEST = 10_000;

export function tooFar(): ArtworkError {
  return new ArtworkError(
    `The drawing has a point further than ${FURTHEST / 1000} m away, or one that is no number; take it out where it was drawn, and import it again.`,
  );
}

/**
 * @param what what is as large, at the beginning of a sentence. @param remedy what to do about it.
 * @throws {ArtworkError} with its size, where it is far larger than any bench.
 * @example checkSize({ minX: 0, minY: 0, maxX: 52_000, maxY: 300 }, 'The drawing', 'make it smaller')
 *   // throws “The drawing is 52 × 0.3 m large, and …”
 */
export function checkSize({ minX, minY, maxX, maxY }: Bounds, what: string, remedy: string): void {
  const [width, height] = [maxX - minX, maxY - minY];
  if (width <= LARGEST && height <= LARGEST) return;
  const metres = (mm: number) => (mm / 1000).toLocaleString('en', { maximumFractionDigits: 1 });
  throw new ArtworkError(
    `${what} is ${metres(width)} × ${metres(height)} m large, and ${LARGEST / 1000} m are the most; ${remedy}.`,
  );
}
