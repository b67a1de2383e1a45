/** The inch is 25.4 mm exactly (international yard and pound agreement, 1959). */
export const MM_PER_INCH = 25.4;

export type LengthUnit = 'mm' | 'in';

/** Degrees from radians. `degrees(Math.PI)` is 180. */
export function degrees(radians: number): number {
  return (radians * 180) / Math.PI;
}

/** Radians from degrees. `radians(180)` is π. */
export function radians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}
