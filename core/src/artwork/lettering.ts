import * as opentype from 'opentype.js';
import type { Font, Path } from 'opentype.js';
import { flattenPath, PointCount } from './flatten-path.ts';
import { told } from './marks.ts';
import type { Clipper } from '../geometry/clipper.ts';
import type { Outline } from '../geometry/outline.ts';
import { shiftLoops } from '../geometry/same-shape.ts';
import type { MarkedShape } from './shape.ts';
import { unitedLetter } from './united-letter.ts';
import { ArtworkError } from './artwork-error.ts';

export type Align = 'left' | 'centre' | 'right';

export interface LetteringSettings {
  /** Lines are divided by newlines. */
  text: string;
  /** Height of a capital H, mm. */
  capHeight: number;
  /** Space added after every letter, in thousandths of the type size. */
  tracking: number;
  /** Distance from one line to the next as a multiple of the type size. */
  leading: number;
  align: Align;
}

/** Reads a TrueType or OpenType face from its bytes. */
export function readFace(bytes: Uint8Array): Font {
  // Bundlers take the package's modules, Node.js its CommonJS file, where everything hangs on `default`.
  const { parse } = 'parse' in opentype ? opentype : (opentype as { default: typeof opentype }).default;
  return parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer);
}

/**
 * Sets lettering as outlines: one shape a letter, mm, y up. The first line's baseline lies on y = 0; x = 0 is the left
 * edge, the middle or the right edge of every line, by `align`. Strokes of a letter that overlap are one: a line that
 * follows the letter goes round it, and not through it. A sign that the face lacks is left out, and its place left free.
 * @throws {ArtworkError} where the face has none of the signs.
 */
export function setLettering(
  font: Font,
  settings: LetteringSettings,
  clipper: Clipper,
): { shapes: MarkedShape[]; notes: string[] } {
  /** Letters whose strokes overlap, by their glyphs, seen from where they begin. */
  const united = new Map<number, Outline[] | undefined>();
  const { text, capHeight, tracking, leading, align } = settings;
  const size = (capHeight * font.unitsPerEm) / capHeightOf(font);
  const shapes: MarkedShape[] = [];
  const count = new PointCount();
  const lacking: string[] = [];
  let word = -1;
  text.split('\n').forEach((line, row) => {
    const glyphs = font.stringToGlyphs(line);
    [...line].forEach((letter, k) => {
      if (letter.trim() !== '' && font.charToGlyphIndex(letter) === 0)
        lacking.push(`“${letter}” (line ${row + 1}, sign ${k + 1})`);
    });
    const scale = size / font.unitsPerEm;
    const space = (tracking / 1000) * size;
    const starts: number[] = [];
    let x = 0;
    glyphs.forEach((glyph, i) => {
      starts.push(x);
      x += (glyph.advanceWidth ?? 0) * scale;
      if (i + 1 < glyphs.length) x += font.getKerningValue(glyph, glyphs[i + 1]) * scale + space;
    });
    const left = align === 'left' ? 0 : align === 'centre' ? -x / 2 : -x;
    const baseline = -row * leading * size;
    let apart = true;
    glyphs.forEach((glyph, i) => {
      // Glyph 0 stands for all that a face does not have; nobody wants its box cut.
      if (glyph.index === 0) return;
      const outlines = flattenPath(pathData(glyph.getPath(0, 0, size)), [1, 0, 0, -1, left + starts[i], baseline], {
        count,
      });
      // A space parts words; whatever is drawn next begins another.
      if (outlines.length === 0) apart = true;
      else if (apart) {
        word++;
        apart = false;
      }
      const letter = glyph.unicode ? String.fromCodePoint(glyph.unicode) : (glyph.name ?? 'letter');
      const closed = outlines.filter((outline) => outline.closed);
      const from = { x: left + starts[i], y: baseline };
      if (closed.length && !united.has(glyph.index))
        united.set(glyph.index, unitedLetter(moved(closed, -from.x, -from.y), clipper));
      const whole = united.get(glyph.index);
      if (closed.length)
        shapes.push({
          name: letter,
          rule: 'nonzero',
          outlines: whole ? moved(whole, from.x, from.y) : closed,
          line: row,
          word,
          mark: `letter:${row + 1}:${letter}`,
        });
    });
  });
  told(shapes);
  if (lacking.length === 0) return { shapes, notes: [] };
  const named = lacking.slice(0, 5).join(', ') + (lacking.length > 5 ? ` and ${lacking.length - 5} more` : '');
  if (shapes.length === 0)
    throw new ArtworkError(`The face has none of these signs: ${named}; choose another face or other letters.`);
  return { shapes, notes: [`The face has no ${named}; left out, with the place kept. Choose another face or letter.`] };
}

const moved = (outlines: readonly Outline[], dx: number, dy: number): Outline[] =>
  outlines.map(({ points, ...rest }) => ({ ...rest, points: shiftLoops([points], dx, dy)[0] }));

function pathData(path: Path): string {
  return path.commands
    .map((c) => {
      if (c.type === 'C') return `C${c.x1} ${c.y1} ${c.x2} ${c.y2} ${c.x} ${c.y}`;
      if (c.type === 'Q') return `Q${c.x1} ${c.y1} ${c.x} ${c.y}`;
      return c.type === 'Z' ? 'Z' : `${c.type}${c.x} ${c.y}`;
    })
    .join('');
}

/** Cap height in font units: from the face's OS/2 table, else measured on its H. */
function capHeightOf(font: Font): number {
  const listed = (font.tables.os2 as { sCapHeight?: number } | undefined)?.sCapHeight;
  if (listed && listed > 0) return listed;
  return font.charToGlyph('H').getBoundingBox().y2 || font.unitsPerEm * 0.7;
}
