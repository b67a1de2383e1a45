import { type Affine, compose, scale } from '../geometry/affine.ts';
import { ArtworkError } from './artwork-error.ts';
import { FURTHEST } from './artwork-size.ts';
import type { Element } from './svg-elements.ts';
import { MM_PER_PIXEL, pageLength } from './svg-length.ts';

/** A width and a height, in units of the drawing. */
export interface Size {
  width: number;
  height: number;
}

export interface Page {
  /** mm. */
  width: number;
  height: number;
  /** From the drawing's units to mm, y up. */
  map: Affine;
  /** What percentages are of, in units of the drawing. */
  size: Size;
  /** Whether the drawing says how large it is. */
  said: boolean;
}

/** A page of which nothing is said is as large as a browser makes it (CSS 2.2, §10.3.2), in units of the drawing. */
const UNSAID: Size = { width: 300, height: 150 };

/** The page of a drawing. @throws {ArtworkError} where it has no size, or a far too large one. */
export function pageOf({ attributes }: Element): Page {
  const view = viewOf(attributes.viewbox);
  const [w, h] = [pageLength(attributes.width), pageLength(attributes.height)];
  const shape: Size = view ?? UNSAID;
  const width = w ?? (h === undefined ? shape.width * MM_PER_PIXEL : (h * shape.width) / shape.height);
  const height = h ?? (w === undefined ? shape.height * MM_PER_PIXEL : (w * shape.height) / shape.width);
  if (!(width > 0) || !(height > 0))
    throw new ArtworkError('The drawing’s page has no size; give its width and height and import it again.');
  if (Math.max(width, height) > FURTHEST)
    throw new ArtworkError(
      `The drawing’s page is larger than ${FURTHEST / 1000} m; check its size and unit where it was drawn, and import it again.`,
    );
  const toMm = view ? viewMap(view, attributes.preserveaspectratio, { width, height }) : scale(MM_PER_PIXEL);
  return {
    width,
    height,
    map: compose(toMm, [1, 0, 0, -1, 0, height]),
    size: view ?? { width: width / MM_PER_PIXEL, height: height / MM_PER_PIXEL },
    said: w !== undefined || h !== undefined,
  };
}

/** A `viewBox`; undefined where it is none that shows anything. */
export function viewOf(text: string | undefined): (Size & { x: number; y: number }) | undefined {
  const [x, y, width, height, ...more] = (text ?? '')
    .trim()
    .split(/\s*,\s*|\s+/)
    .map(Number);
  const good = more.length === 0 && [x, y, width, height].every(Number.isFinite) && width > 0 && height > 0;
  return good ? { x, y, width, height } : undefined;
}

/**
 * How a window of a size shows what lies in a `viewBox` (SVG 2, §8.2).
 * @example viewMap({ x: 0, y: 0, width: 10, height: 10 }, undefined, { width: 40, height: 20 }) // [2, 0, 0, 2, 10, 0]
 */
export function viewMap(
  view: (Size & { x: number; y: number }) | undefined,
  aspect: string | undefined,
  { width, height }: Size,
): Affine {
  if (!view) return scale(1);
  let sx = width / view.width;
  let sy = height / view.height;
  const [, align, x = 'Mid', y = 'Mid', fit] =
    /^\s*(?:defer\s+)?(none|x(Min|Mid|Max)Y(Min|Mid|Max))(?:\s+(meet|slice))?\s*$/.exec(aspect ?? '') ?? [];
  let [dx, dy] = [0, 0];
  if (align !== 'none') {
    sx = sy = fit === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = { Min: 0, Mid: 0.5, Max: 1 };
    dx = (width - view.width * sx) * share[x as keyof typeof share];
    dy = (height - view.height * sy) * share[y as keyof typeof share];
  }
  return [sx, 0, 0, sy, dx - view.x * sx, dy - view.y * sy];
}
