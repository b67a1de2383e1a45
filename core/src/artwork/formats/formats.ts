import type { Clipper } from '../../geometry/clipper.ts';
import type { Drawing } from '../shape.ts';
import { drawingOf, pageOfSvg, parsedDrawing } from '../svg.ts';
import { bmpFormat } from './bmp/format.ts';
import type { Format } from './format.ts';
import { jpegFormat } from './jpeg/format.ts';
import { pngFormat } from './png/format.ts';

/** What is none of the others is read as SVG, which says what is wrong with it. */
const svgFormat: Format = {
  name: 'SVG',
  is: () => true,
  parse(bytes) {
    const parsed = parsedDrawing(bytes);
    return (clipper) => drawingOf(parsed, clipper);
  },
  page: pageOfSvg,
};

/** The kinds of file that artwork comes in. */
const FORMATS: readonly Format[] = [pngFormat, jpegFormat, bmpFormat, svgFormat];

const formatOf = (bytes: Uint8Array): Format => FORMATS.find((format) => format.is(bytes))!;

/**
 * Reads artwork from a file of any kind, told by its bytes.
 * @throws {ArtworkError} with one sentence for what cannot be used.
 * @example importArtwork(utf8('<svg width="10mm" height="5mm" viewBox="0 0 10 5"><rect width="10" height="5"/></svg>'), clipper).shapes.length // 1
 */
export const importArtwork = (bytes: Uint8Array, clipper: Clipper): Drawing => parseArtwork(bytes)(clipper);

/** Reads a file; what is called then makes its outlines. @throws {ArtworkError} as `importArtwork` does. */
export const parseArtwork = (bytes: Uint8Array): ((clipper: Clipper) => Drawing) => formatOf(bytes).parse(bytes);

/** How large its page is, mm. @throws {ArtworkError} for what is no artwork. */
export const pageOfArtwork = (bytes: Uint8Array): { width: number; height: number } => formatOf(bytes).page(bytes);
