/** A stretch of a section that is carved: samples from and to, and its deepest height, mm. */
export interface Groove {
  from: number;
  to: number;
  z: number;
}

/** Less than this below the surface counts as untouched, mm. */
const TOUCHED = 0.02;

/**
 * The stretches of a section that are carved.
 * @param surface the height of the untouched stock at a sample.
 * @example grooves([0, -2, -3, 0], 0, 3, () => 0) // [{ from: 1, to: 2, z: -3 }]
 */
export function grooves(
  heights: ArrayLike<number>,
  first: number,
  last: number,
  surface: (i: number) => number,
): Groove[] {
  const found: Groove[] = [];
  let on: Groove | undefined;
  for (let i = first; i <= last; i++) {
    if (heights[i] < surface(i) - TOUCHED) {
      on ??= { from: i, to: i, z: 0 };
      on.to = i;
      on.z = Math.min(on.z, heights[i]);
      if (i < last) continue;
    }
    if (on) found.push(on);
    on = undefined;
  }
  return found;
}
