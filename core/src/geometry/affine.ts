/** A plane affine map: x' = a·x + c·y + e, y' = b·x + d·y + f (the order SVG's `matrix()` uses). */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];

/** The map that does `first`, then `second`. */
export function compose(first: Affine, second: Affine): Affine {
  const [a, b, c, d, e, f] = first;
  const [A, B, C, D, E, F] = second;
  return [A * a + C * b, B * a + D * b, A * c + C * d, B * c + D * d, A * e + C * f + E, B * e + D * f + F];
}

/** Moves by (x, y). */
export function shift(x: number, y: number): Affine {
  return [1, 0, 0, 1, x, y];
}

/** Scales about the origin. */
export function scale(x: number, y = x): Affine {
  return [x, 0, 0, y, 0, 0];
}

/** Turns counter-clockwise about the origin by `angle` radians (y up). */
export function turn(angle: number): Affine {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return [c, s, -s, c, 0, 0];
}

/** Maps an interleaved x, y array into a new one. `applyTo(shift(1, 2), Float64Array.of(0, 0))` is `[1, 2]`. */
export function applyTo(map: Affine, points: Float64Array): Float64Array {
  const [a, b, c, d, e, f] = map;
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    out[i] = a * points[i] + c * points[i + 1] + e;
    out[i + 1] = b * points[i] + d * points[i + 1] + f;
  }
  return out;
}

/** The map that undoes another; undefined where that is flat. `inverse(shift(1, 2))` is `shift(-1, -2)`. */
export function inverse([a, b, c, d, e, f]: Affine): Affine | undefined {
  const area = a * d - b * c;
  if (!(Math.abs(area) > 0) || !Number.isFinite(1 / area)) return undefined;
  return [d / area, -b / area, -c / area, a / area, (c * f - d * e) / area, (b * e - a * f) / area];
}
