import type { Affine } from '../../geometry/affine.ts';
import { ArtworkError } from '../artwork-error.ts';

/** A picture as greys: rows from the top, 0 black to 255 white. */
export interface GreyMap {
  width: number;
  height: number;
  greys: Uint8Array;
}

/** A picture as it lies: its pixels (x right, y down from its upper left corner) mapped to mm on the sheet. */
export interface PlacedGreys {
  grey: GreyMap;
  map: Affine;
}

/** Most pixels of a picture: more is finer than any beam, and fills the memory. */
export const MOST_PIXELS = 100e6;
/** Most bytes of a picture’s file. */
export const LARGEST_PICTURE = 40_000_000;

export const INCH = 25.4;

/** @param most pixels that its format is read with. @throws {ArtworkError} for a picture that is too large, or none. */
export function checkPixels(width: number, height: number, most = MOST_PIXELS): void {
  if (!(width > 0 && height > 0)) throw new ArtworkError('The picture has no size; save it again and import that.');
  if (width * height > most)
    throw new ArtworkError(
      `The picture has ${Math.round((width * height) / 1e6)} million pixels, and ${most / 1e6} million are the most; make it smaller (10 pixels a millimetre are as fine as a beam burns) and import it again.`,
    );
}

/**
 * Greys from rows of channels: grey, grey and alpha, red green blue, or those and alpha (ITU-R BT.601 luma; what is clear is
 * white).
 *
 * @param most the value of a channel that is full: 255, or 65535.
 */
export function greysFrom(
  data: ArrayLike<number>,
  width: number,
  height: number,
  channels: number,
  most = 255,
): GreyMap {
  const greys = new Uint8Array(width * height);
  const colour = channels >= 3;
  const alpha = channels === 2 || channels === 4;
  for (let k = 0, i = 0; k < greys.length; k++, i += channels) {
    let grey = colour ? 0.299 * data[i] + 0.587 * data[i + 1] + 0.114 * data[i + 2] : data[i];
    if (alpha) {
      const seen = data[i + channels - 1] / most;
      grey = grey * seen + most * (1 - seen);
    }
    greys[k] = Math.round((255 * grey) / most);
  }
  return { width, height, greys };
}

/** How a picture says its size: pixels a mm along and across; nothing where it does not. */
export type Density = { x: number; y: number } | undefined;

/** A density worth believing, pixels a mm: from 1 to 20,000 an inch. */
export function densityOf(x: number, y: number): Density {
  const good = (d: number) => Number.isFinite(d) && d * INCH >= 1 && d * INCH <= 20_000;
  return good(x) && good(y) ? { x, y } : undefined;
}
