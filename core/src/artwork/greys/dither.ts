/** Where a dot’s error goes: dots to the right and rows down, and its share. */
type Spread = readonly (readonly [dx: number, dy: number, share: number])[];

const shares = (over: number, taps: readonly (readonly [number, number, number])[]): Spread =>
  taps.map(([dx, dy, part]) => [dx, dy, part / over]);

/** Floyd and Steinberg 1976. */
const FLOYD_STEINBERG = shares(16, [[1, 0, 7], [-1, 1, 3], [0, 1, 5], [1, 1, 1]]); // prettier-ignore

/** Jarvis, Judice and Ninke 1976. */
const JARVIS = shares(48, [
  [1, 0, 7], [2, 0, 5],
  [-2, 1, 3], [-1, 1, 5], [0, 1, 7], [1, 1, 5], [2, 1, 3],
  [-2, 2, 1], [-1, 2, 3], [0, 2, 5], [1, 2, 3], [2, 2, 1],
]); // prettier-ignore

/** Atkinson (from memory): three quarters of the error, so that light places stay blank and dark ones full. */
const ATKINSON = shares(8, [[1, 0, 1], [2, 0, 1], [-1, 1, 1], [0, 1, 1], [1, 1, 1], [0, 2, 1]]); // prettier-ignore

const SPREADS = { 'floyd-steinberg': FLOYD_STEINBERG, jarvis: JARVIS, atkinson: ATKINSON, threshold: [] } as const;

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

function diffused(greys: Uint8Array, taken: Uint8Array, columns: number, spread: Spread): Uint8Array {
  const dots = new Uint8Array(greys.length);
  const rows = greys.length / columns;
  const room = 2;
  const wide = columns + 2 * room;
  // Errors of this row and the two after it, with room beside for what falls off.
  const errors = new Float32Array(3 * wide);
  const rowsOn = Int32Array.from(spread, ([, dy]) => dy);
  const along = Int32Array.from(spread, ([dx]) => dx + room);
  const parts = Float32Array.from(spread, ([, , part]) => part);
  const taps = spread.length;
  const at = new Int32Array(taps);
  for (let row = 0, k = 0; row < rows; row++) {
    const own = (row % 3) * wide;
    for (let t = 0; t < taps; t++) at[t] = ((row + rowsOn[t]) % 3) * wide + along[t];
    for (let x = 0; x < columns; x++, k++) {
      if (taken[k] === 0) continue;
      let error = greys[k] + errors[own + room + x];
      if (error < MIDDLE) dots[k] = 1;
      else error -= 255;
      if (error === 0) continue;
      for (let t = 0; t < taps; t++) errors[at[t] + x] += error * parts[t];
    }
    errors.fill(0, own, own + wide);
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
