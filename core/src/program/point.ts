/** A place, mm. */
export interface Point {
  x: number;
  y: number;
  z: number;
}

/** The axes in their order. */
export const AXES = ['x', 'y', 'z'] as const;
