/** Shares of a dot’s error: one and two dots on; two back to two on a row down; the same two rows down. */
type Spread = readonly [a1: number, a2: number, b: readonly number[], c: readonly number[]];

const shares = (
  over: number,
  on: readonly [number, number],
  below: readonly number[],
  twoBelow: readonly number[],
): Spread => [on[0] / over, on[1] / over, below.map((part) => part / over), twoBelow.map((part) => part / over)];

/** Floyd and Steinberg 1976. */
const FLOYD_STEINBERG = shares(16, [7, 0], [0, 3, 5, 1, 0], [0, 0, 0, 0, 0]);

/** Jarvis, Judice and Ninke 1976. */
const JARVIS = shares(48, [7, 5], [3, 5, 7, 5, 3], [1, 3, 5, 3, 1]);

/** Atkinson (from memory): three quarters of the error, so that light places stay blank and dark ones full. */
const ATKINSON = shares(8, [1, 1], [0, 1, 1, 1, 0], [0, 0, 1, 0, 0]);

const NONE = shares(1, [0, 0], [0, 0, 0, 0, 0], [0, 0, 0, 0, 0]);

const SPREADS = { 'floyd-steinberg': FLOYD_STEINBERG, jarvis: JARVIS, atkinson: ATKINSON, threshold: NONE } as const;

/** Ways of making dots of greys. */
export const DITHERS = ['floyd-steinberg', 'jarvis', 'atkinson', 'ordered', 'threshold'] as const;
export type Dither = (typeof DITHERS)[number];

/** Darker than this is burnt. */
const MIDDLE = 128;

/**
 * Dots, 1 where it is burnt, that together are as dark as greys: row by row from the top, from the left, what a dot is too
 * dark or too light by going on to its neighbours; or by a pattern of thresholds (Bayer 1973, 16 by 16: as many as
 * there are greys).
 *
 * @param greys 0 black to 255 white, `columns` a row.
 * @param taken dots that may be burnt, 1 each; the others are blank and take no error.
 * @example dither(Uint8Array.of(100, 200), Uint8Array.of(1, 1), 2, 'floyd-steinberg') // Uint8Array.of(1, 0)
 */
export function dither(greys: Uint8Array, taken: Uint8Array, columns: number, by: Dither): Uint8Array {
  return by === 'ordered' ? ordered(greys, taken, columns) : diffused(greys, taken, columns, SPREADS[by]);
}

function diffused(greys: Uint8Array, taken: Uint8Array, columns: number, [a1, a2, down, twoDown]: Spread): Uint8Array {
  const dots = new Uint8Array(greys.length);
  const rows = greys.length / columns;
  // Errors of this row and the two after it, with room beside for what falls off. What goes on in the row itself is at hand.
  let own = new Float32Array(columns + 4);
  let below = new Float32Array(columns + 4);
  let far = new Float32Array(columns + 4);
  const [b0, b1, b2, b3, b4] = down;
  const [c0, c1, c2, c3, c4] = twoDown;
  const wideBelow = b0 !== 0;
  const reachesFar = c2 !== 0;
  const wideFar = c0 !== 0;
  for (let row = 0, k = 0; row < rows; row++) {
    let [next, second] = [0, 0];
    for (let x = 0; x < columns; x++, k++) {
      const come = next;
      next = second;
      second = 0;
      if (taken[k] === 0) continue;
      let error = greys[k] + own[x + 2] + come;
      if (error < MIDDLE) dots[k] = 1;
      else error -= 255;
      next += error * a1;
      second = error * a2;
      below[x + 1] += error * b1;
      below[x + 2] += error * b2;
      below[x + 3] += error * b3;
      if (wideBelow) {
        below[x] += error * b0;
        below[x + 4] += error * b4;
      }
      if (!reachesFar) continue;
      far[x + 2] += error * c2;
      if (!wideFar) continue;
      far[x] += error * c0;
      far[x + 1] += error * c1;
      far[x + 3] += error * c3;
      far[x + 4] += error * c4;
    }
    own.fill(0);
    [own, below, far] = [below, far, own];
  }
  return dots;
}

/** The order in which a 16 by 16 pattern fills (Bayer 1973). */
const BAYER = Uint8Array.from({ length: 256 }, (_, k) => {
  const [x, y] = [k & 15, k >> 4];
  let value = 0;
  for (let bit = 0; bit < 4; bit++) {
    const [bx, by] = [(x >> bit) & 1, (y >> bit) & 1];
    value |= (((bx ^ by) << 1) | by) << (2 * (3 - bit));
  }
  return value;
});

function ordered(greys: Uint8Array, taken: Uint8Array, columns: number): Uint8Array {
  const dots = new Uint8Array(greys.length);
  for (let k = 0; k < greys.length; k++) {
    const [x, y] = [k % columns, Math.floor(k / columns)];
    if (taken[k] && greys[k] <= BAYER[((y & 15) << 4) | (x & 15)] - 1) dots[k] = 1;
  }
  return dots;
}
