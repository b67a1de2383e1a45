/**
 * Largest distance between a curve and the chords that stand for it, mm. Three micrometres keep flattening noise at
 * half the pruning tolerance of the medial axis; larger would double the branches of the axis, smaller only makes more
 * points.
 */
export const FLATTENING_TOLERANCE = 0.003;

/**
 * Appends a cubic Bézier curve to `out` (without its first point) as chords that stay within `tolerance`.
 * The count follows Wang’s bound for degree 3:
 * n ≥ √(6·M / (8·tolerance)), M the larger second difference of the control points).
 *
 * @param spend told how many points will be made before they are; may throw.
 */
export function flattenCubic(
  out: number[],
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
  tolerance: number,
  spend: (points: number) => void = () => {},
): void {
  const m = Math.max(Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3));
  const n = Math.max(1, Math.ceil(Math.sqrt((6 * m) / (8 * tolerance))));
  spend(n);
  for (let i = 1; i < n; i++) {
    const t = i / n;
    const s = 1 - t;
    const a = s * s * s;
    const b = 3 * s * s * t;
    const c = 3 * s * t * t;
    const d = t * t * t;
    out.push(a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3);
  }
  out.push(x3, y3);
}

/** Appends a quadratic Bézier curve, raised to a cubic (exactly). */
export function flattenQuadratic(
  out: number[],
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  tolerance: number,
  spend: (points: number) => void = () => {},
): void {
  const n = Math.max(1, Math.ceil(Math.sqrt((2 * Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2)) / (8 * tolerance))));
  spend(n);
  for (let i = 1; i < n; i++) {
    const t = i / n;
    const s = 1 - t;
    out.push(s * s * x0 + 2 * s * t * x1 + t * t * x2, s * s * y0 + 2 * s * t * y1 + t * t * y2);
  }
  out.push(x2, y2);
}
