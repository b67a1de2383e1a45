import type { Clipper } from '../geometry/clipper.ts';
import { boundsOf } from '../geometry/outline.ts';
import { ArtworkError } from './artwork-error.ts';
import { checkSize } from './artwork-size.ts';
import { marked } from './marks.ts';
import type { Drawing } from './shape.ts';
import { type Parsed, readDrawing } from './svg-elements.ts';
import { SvgReader } from './svg-reader.ts';
import { pageOf } from './svg-viewport.ts';

/** More bytes than this is a picture in disguise, and would stall every later stop. */
const LARGEST_DRAWING = 8_000_000;

/**
 * Reads an SVG drawing into flattened outlines, as it is shown: by its styles, clip paths, symbols and windows. Shapes
 * are taken whether they are filled or only stroked; what does not show is left out, and said.
 *
 * @param bytes the file, in any encoding that it declares.
 * @throws {ArtworkError} with one sentence when the file is not SVG, too large, holds scripts or entities, or nothing
 *   that can be carved.
 * @example importSvg(utf8('<svg width="10mm" height="5mm" viewBox="0 0 10 5"><rect width="10" height="5"/></svg>'), clipper)
 *   // { width: 10, height: 5, shapes: [{ name: 'rect 1', … }], notes: [] }
 */
export function importSvg(bytes: Uint8Array, clipper: Clipper): Drawing {
  return drawingOf(parsedDrawing(bytes), clipper);
}

/**
 * Reads that a file is an SVG drawing and how large its page is, mm; its outlines are not looked at.
 * @throws {ArtworkError} as `importSvg` does for what is none.
 * @example pageOfSvg(utf8('<svg width="10mm" height="5mm" viewBox="0 0 10 5"/>')) // { width: 10, height: 5 }
 */
export function pageOfSvg(bytes: Uint8Array): { width: number; height: number } {
  const { width, height } = pageOf(parsedDrawing(bytes).root);
  return { width, height };
}

/** Reads the elements of a drawing. @throws {ArtworkError} as `importSvg` does for what is none. */
export function parsedDrawing(bytes: Uint8Array): Parsed {
  if (bytes.length > LARGEST_DRAWING)
    throw new ArtworkError(
      `The drawing is ${(bytes.length / 1e6).toFixed(1)} MB, and the most is ${LARGEST_DRAWING / 1e6} MB; simplify its paths or save it without pictures, and import it again.`,
    );
  return readDrawing(bytes);
}

/** The outlines of a drawing that has been parsed; see `importSvg`. */
export function drawingOf(parsed: Parsed, clipper: Clipper): Drawing {
  const page = pageOf(parsed.root);
  const { shapes, left } = new SvgReader(parsed, page, clipper).read();
  if (shapes.length === 0) {
    if (left.count('text') > 0 && left.sentences().length === 1)
      throw new ArtworkError(
        'The drawing holds only text that is not outlines yet; open it where it was drawn, turn the text into outlines, and save it again, or type it here as lettering.',
      );
    throw new ArtworkError(
      [
        'The drawing holds no outlines that show; save it with at least one path or shape and import it again.',
        ...left.sentences(),
      ].join(' '),
    );
  }
  for (const { name, outlines } of shapes) {
    const { minX, minY, maxX, maxY } = boundsOf(outlines)!;
    if (page.said && (maxX < 0 || maxY < 0 || minX > page.width || minY > page.height)) left.add('outside', name);
  }
  const bounds = boundsOf(shapes.flatMap((shape) => shape.outlines))!;
  checkSize(bounds, 'The drawing', 'check its page size and unit where it was drawn, and import it again');
  if (Math.max(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) < 0.01)
    throw new ArtworkError(
      'The drawing has no size (all its outlines are points); draw it larger and import it again.',
    );
  const notes = left.sentences();
  if (!page.said)
    notes.push('The drawing does not say how large it is: each of its units was taken as 1/96 in. Check its size.');
  return { width: page.width, height: page.height, shapes: marked(shapes), notes };
}
