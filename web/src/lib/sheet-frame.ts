/**
 * Where the stock lies on the drawn sheet: a point (x, y) mm is drawn at (left + k·x, base − k·y) pixels.
 *
 * With `{ k: 2, left: 60, base: 400 }` that draws (10, 5) at (80, 390).
 */
export interface SheetFrame {
  /** Pixels a millimetre. */
  k: number;
  /** Pixel column of the stock's left edge. */
  left: number;
  /** Pixel row of the stock's lower edge. */
  base: number;
}
