import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FACE_FILES } from '@kerbe/core/artwork/faces';
import { readFace } from '@kerbe/core/artwork/lettering';
import type { Face } from '@kerbe/core/document/item';

/**
 * A page of lettering as an SVG drawing, every letter a path of its own with its curves.
 * @param spacing distance from letter to letter in cap heights; under one they overlap, as in joined-up faces.
 */
export function letterPage(
  letters: number,
  { face = 'fraunces' as Face, cap = 16, differ = false, spacing = 1.6 } = {},
): string {
  const require = createRequire(import.meta.url);
  const font = readFace(readFileSync(require.resolve(FACE_FILES[face])));
  const words = 'FernhillObservatoryopensatdusk';
  const size = (cap * font.unitsPerEm) / font.charToGlyph('H').getBoundingBox().y2;
  const perLine = 30 * Math.max(1, Math.round(Math.sqrt(letters / 400)));
  const paths: string[] = [];
  let width = 0;
  for (let k = 0; k < letters; k++) {
    const row = Math.floor(k / perLine);
    const x = 5 + (k % perLine) * cap * spacing;
    width = Math.max(width, x + 3 * cap);
    // A ten-thousandth of its size more each: letters that look alike and are not.
    const own = differ ? size * (1 + k * 5e-5) : size;
    const { commands } = font.charToGlyph(words[k % words.length]).getPath(x, 5 + (row + 1) * cap * 1.6, own);
    paths.push(`<path d="${commands.map(drawn).join('')}"/>`);
  }
  const height = 5 + (Math.ceil(letters / perLine) + 1) * cap * 1.6;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${paths.join('')}</svg>`;
}

type Command = ReturnType<ReturnType<typeof readFace>['getPath']>['commands'][number];

const n = (value: number) => String(Math.round(value * 1e4) / 1e4);

function drawn(c: Command): string {
  if (c.type === 'C') return `C${n(c.x1)} ${n(c.y1)} ${n(c.x2)} ${n(c.y2)} ${n(c.x)} ${n(c.y)}`;
  if (c.type === 'Q') return `Q${n(c.x1)} ${n(c.y1)} ${n(c.x)} ${n(c.y)}`;
  return c.type === 'Z' ? 'Z' : `${c.type}${n(c.x)} ${n(c.y)}`;
}
