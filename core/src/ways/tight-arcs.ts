/** A turn at one point sharper than this is a corner and no arc, radians: 35°. */
const CORNER = 0.61;

/**
 * Of every move along a line of points whether it lies on an arc tighter than a radius: what it turns between its ends is
 * more than its length along such an arc would be. Corners are none.
 *
 * @param points x and y in turn; of a closed line the first repeated at the end.
 * @param least arcs tighter than this, mm, go round a corner and are none of the drawing’s.
 * @returns one for each move, the first being that from point 0 to 1.
 * @example a circle of radius 3 mm in chords, asked for 5 mm: 1 for each
 */
export function tightArcs(points: ArrayLike<number>, radius: number, least: number): Uint8Array {
  const n = points.length / 2 - 1;
  const out = new Uint8Array(Math.max(0, n));
  const length = (i: number) => Math.hypot(points[2 * i + 2] - points[2 * i], points[2 * i + 3] - points[2 * i + 1]);
  const turn = (i: number) => {
    const [ux, uy] = [points[2 * i + 2] - points[2 * i], points[2 * i + 3] - points[2 * i + 1]];
    const [vx, vy] = [points[2 * i + 4] - points[2 * i + 2], points[2 * i + 5] - points[2 * i + 3]];
    return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  };
  for (let i = 0; i + 1 < n; i++) {
    const t = turn(i);
    if (Math.abs(t) > CORNER || Math.abs(t) < 1e-4) continue;
    // A chord on each side turns half of its own share here.
    const r = (length(i) + length(i + 1)) / 2 / Math.abs(t);
    if (r < radius && r > least) out[i] = out[i + 1] = 1;
  }
  return out;
}
