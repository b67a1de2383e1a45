import type { Clipper } from '../../geometry/clipper.ts';
import type { Drawing } from '../shape.ts';

/** A kind of file that artwork comes in. */
export interface Format {
  /** “PNG”. */
  name: string;
  /** Whether bytes begin as one. */
  is(bytes: Uint8Array): boolean;
  /** Reads the file; what is called then makes outlines of it. Both @throws {ArtworkError} with one sentence. */
  parse(bytes: Uint8Array): (clipper: Clipper) => Drawing;
  /** How large its page is, mm, without reading all of it. @throws {ArtworkError} with one sentence. */
  page(bytes: Uint8Array): { width: number; height: number };
}
