/** The inch is 25.4 mm exactly (international yard and pound agreement, 1959). */
export const MM_PER_INCH = 25.4;

export type LengthUnit = 'mm' | 'in';

/** Radians from degrees. `radians(180)` is π. */
export function radians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}
