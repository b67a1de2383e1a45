import svgpath from 'svgpath';
import type { Affine } from '../geometry/affine.ts';
import { arcCentre, flattenArc } from '../geometry/elliptical-arc.ts';
import { FLATTENING_TOLERANCE, flattenCubic, flattenQuadratic } from '../geometry/flatten.ts';
import type { Outline } from '../geometry/outline.ts';
import { ArtworkError } from './artwork-error.ts';
import { FURTHEST, tooFar } from './artwork-size.ts';

/** Three million points are about twelve thousand letters; beyond that no sign is meant. */
const MOST_POINTS = 3_000_000;
const MOST_OUTLINES = 100_000;

/** Ends of an outline nearer than this, mm, are one point: a hundredth of the finest carved line. */
const CLOSING_DISTANCE = 0.005;

/** An arc of a larger radius, mm, is a line wherever it lies on a bench, or was not meant. */
const FURTHEST_RADIUS = 1e9;

/** Counts the points of a drawing before they are made, so that no file can ask for more than is sensible. */
export class PointCount {
  private points = 0;
  private outlines = 0;

  /** @throws {ArtworkError} where that is more than any sign has. */
  spend(points: number): void {
    this.points += points;
    if (!(this.points <= MOST_POINTS))
      throw new ArtworkError(
        `The drawing has more than ${MOST_POINTS.toLocaleString('en')} points; simplify its paths where it was drawn and import it again.`,
      );
  }

  outline(): void {
    if (++this.outlines > MOST_OUTLINES)
      throw new ArtworkError(
        `The drawing has more than ${MOST_OUTLINES.toLocaleString('en')} outlines; import it in several parts.`,
      );
  }
}

/**
 * Path data to outlines in mm. Repeated points are dropped, and a path whose ends meet counts as closed.
 * @throws {ArtworkError} when the data breaks the path grammar.
 */
export function flattenPath(
  d: string,
  map: Affine,
  { tolerance = FLATTENING_TOLERANCE, count = new PointCount() }: { tolerance?: number; count?: PointCount } = {},
): Outline[] {
  const spend = (points: number) => count.spend(points);
  // The path costs this much to read, whatever comes of it.
  spend(d.length / 16);
  const parsed = svgpath(d);
  const problem = (parsed as unknown as { err?: string }).err;
  if (problem)
    throw new ArtworkError('A path of the drawing cannot be read; save it again as plain SVG and import it again.');
  const outlines: Outline[] = [];
  let points: number[] = [];
  let nodes = 0;
  const finish = (closed: boolean) => {
    if (points.length) count.outline();
    const clean = withoutRepeats(points);
    const n = clean.length;
    if (n >= 4) {
      const meets = n >= 8 && Math.hypot(clean[0] - clean[n - 2], clean[1] - clean[n - 1]) < CLOSING_DISTANCE;
      const loop = meets ? clean.slice(0, n - 2) : clean;
      // Closing draws a last line, unless the ends meet already.
      const drawn = Math.min(nodes + (closed && !meets ? 1 : 0), loop.length / 2);
      outlines.push({ points: new Float64Array(loop), closed: (closed || meets) && loop.length >= 6, nodes: drawn });
    }
    points = [];
    nodes = 0;
  };
  let [sx, sy] = [0, 0];
  // Each is a walk over the whole path: only where there is something for it to do.
  if (/[a-df-y]/.test(d)) parsed.abs();
  if (/[sStT]/.test(d)) parsed.unshort();
  parsed.matrix([...map]).iterate((segment, _index, x, y) => {
    const v = segment as unknown as [string, ...number[]];
    const [letter] = v;
    const most = letter === 'A' ? FURTHEST_RADIUS : FURTHEST;
    // Also where it is not a number.
    for (let i = 1; i < v.length; i++) if (!(Math.abs(Number(v[i])) <= most)) throw tooFar();
    spend(1);
    if (letter === 'M') {
      finish(false);
      [, sx, sy] = v;
      points.push(sx, sy);
      return;
    }
    if (letter === 'Z' || letter === 'z') {
      finish(true);
      points.push(sx, sy);
      return;
    }
    if (points.length === 0) points.push(x, y);
    nodes++;
    if (letter === 'L') points.push(v[1], v[2]);
    else if (letter === 'H') points.push(v[1], y);
    else if (letter === 'V') points.push(x, v[1]);
    else if (letter === 'C') flattenCubic(points, x, y, v[1], v[2], v[3], v[4], v[5], v[6], tolerance, spend);
    else if (letter === 'Q') flattenQuadratic(points, x, y, v[1], v[2], v[3], v[4], tolerance, spend);
    else if (letter === 'A') {
      // A mirrored arc comes back with its flags as text.
      const arc = arcCentre(
        x,
        y,
        v[1],
        v[2],
        (v[3] * Math.PI) / 180,
        Number(v[4]) !== 0,
        Number(v[5]) !== 0,
        v[6],
        v[7],
      );
      if (arc) flattenArc(points, arc, tolerance, spend);
      else points.push(v[6], v[7]);
    }
  });
  finish(false);
  return outlines;
}

function withoutRepeats(points: number[]): number[] {
  const kept: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const n = kept.length;
    if (n === 0 || (points[i] - kept[n - 2]) ** 2 + (points[i + 1] - kept[n - 1]) ** 2 > 1e-12)
      kept.push(points[i], points[i + 1]);
  }
  return kept;
}
