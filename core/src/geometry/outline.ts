/** A flattened outline: interleaved x, y in mm; a closed one does not repeat its first point. */
export interface Outline {
  points: Float64Array;
  closed: boolean;
  /** Curves and lines it was drawn with, where that is known. */
  nodes?: number;
}

/** Closed loops as interleaved x, y in mm. Outer loops run counter-clockwise, holes clockwise. */
export type Loops = Float64Array[];

export interface Bounds {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** The smallest box around all points, or undefined where there are none. */
export function boundsOf(outlines: readonly { points: Float64Array }[]): Bounds | undefined {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const { points } of outlines)
    for (let i = 0; i < points.length; i += 2) {
      if (points[i] < minX) minX = points[i];
      if (points[i] > maxX) maxX = points[i];
      if (points[i + 1] < minY) minY = points[i + 1];
      if (points[i + 1] > maxY) maxY = points[i + 1];
    }
  return minX <= maxX ? { minX, minY, maxX, maxY } : undefined;
}

/** Signed area of a closed loop by the shoelace formula, positive counter-clockwise (y up). Unit square: 1. */
export function signedArea(points: Float64Array): number {
  let twice = 0;
  const n = points.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) twice += points[j] * points[i + 1] - points[i] * points[j + 1];
  return twice / 2;
}

/** What loops cover, their holes taken off, mm². @example coveredBy([Float64Array.of(0, 0, 4, 0, 4, 4, 0, 4)]) // 16 */
export const coveredBy = (loops: readonly Float64Array[]): number =>
  loops.reduce((sum, loop) => sum + signedArea(loop), 0);

/** Length along an outline, mm. */
export function lengthOf({ points, closed }: Outline): number {
  let total = 0;
  for (let i = 2; i < points.length; i += 2)
    total += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  if (closed && points.length > 2)
    total += Math.hypot(points[0] - points[points.length - 2], points[1] - points[points.length - 1]);
  return total;
}

/** Even-odd test of a point against one closed loop. */
export function contains(points: Float64Array, x: number, y: number): boolean {
  let inside = false;
  const n = points.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const yi = points[i + 1];
    const yj = points[j + 1];
    if (yi > y !== yj > y && x < ((points[j] - points[i]) * (y - yi)) / (yj - yi) + points[i]) inside = !inside;
  }
  return inside;
}
