import { Unzlib } from 'fflate';

/** What a PNG's header says (ISO/IEC 15948, 11.2.2). */
export interface PngHeader {
  width: number;
  height: number;
  /** Bits a sample. */
  depth: number;
  /** 0 grey, 2 colour, 3 by palette, 4 grey and alpha, 6 colour and alpha. */
  colour: number;
  interlaced: boolean;
}

/** Samples a pixel, by colour type. */
export const SAMPLES: Record<number, number> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** Depths that each colour type may have (11.2.2, table 11.1). */
const DEPTHS: Record<number, readonly number[]> = {
  0: [1, 2, 4, 8, 16],
  2: [8, 16],
  3: [1, 2, 4, 8],
  4: [8, 16],
  6: [8, 16],
};

/** A PNG that does not follow its standard. */
export class BrokenPng extends Error {
  override name = 'BrokenPng';
}

/** Where the pixels of a pass lie: from, and how far apart (8.2, Adam7). */
interface Pass {
  x: number;
  y: number;
  dx: number;
  dy: number;
}
const WHOLE: readonly Pass[] = [{ x: 0, y: 0, dx: 1, dy: 1 }];
const ADAM7: readonly Pass[] = [
  { x: 0, y: 0, dx: 8, dy: 8 },
  { x: 4, y: 0, dx: 8, dy: 8 },
  { x: 0, y: 4, dx: 4, dy: 8 },
  { x: 2, y: 0, dx: 4, dy: 4 },
  { x: 0, y: 2, dx: 2, dy: 4 },
  { x: 1, y: 0, dx: 2, dy: 2 },
  { x: 0, y: 1, dx: 1, dy: 2 },
];

/** Bytes of the file that are inflated at once: little of what a small file may hold is in memory. */
const AT_ONCE = 8192;

/** Chunks of a PNG by name, in their order. @throws {BrokenPng} where the file ends within one. */
export function* chunksOf(bytes: Uint8Array): Generator<{ name: string; data: Uint8Array }> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (name === 'IEND') return;
    if (at + 12 + length > bytes.length) throw new BrokenPng(`the file ends within ${name}`);
    yield { name, data: bytes.subarray(at + 8, at + 8 + length) };
    at += 12 + length;
  }
}

/** @throws {BrokenPng} where it is no header that the standard knows. */
export function pngHeader(bytes: Uint8Array): PngHeader {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const [depth, colour, compression, filter, interlace] = bytes.subarray(24, 29);
  if (!DEPTHS[colour]?.includes(depth) || compression !== 0 || filter !== 0 || interlace > 1)
    throw new BrokenPng('the header says what there is not');
  return { width: view.getUint32(16), height: view.getUint32(20), depth, colour, interlaced: interlace === 1 };
}

/**
 * Reads a PNG row by row, whatever it inflates to: no more is inflated than its header's rows take.
 *
 * @param row told the bytes of each row, its filter undone, how many pixels it has, and where the first lies and how far
 *   apart they are; the bytes are good until the next row.
 * @throws {BrokenPng} where it ends early, or does not follow the standard.
 */
export function readRows(
  bytes: Uint8Array,
  header: PngHeader,
  row: (line: Uint8Array, pixels: number, at: { x: number; y: number; dx: number }) => void,
): void {
  const { width, height, depth, colour, interlaced } = header;
  const bits = SAMPLES[colour] * depth;
  const back = Math.max(1, bits >> 3);
  const passes = (interlaced ? ADAM7 : WHOLE)
    .map((pass) => ({
      ...pass,
      pixels: Math.ceil((width - pass.x) / pass.dx),
      rows: Math.ceil((height - pass.y) / pass.dy),
    }))
    .filter(({ pixels, rows }) => pixels > 0 && rows > 0);
  let [pass, done] = [0, 0];
  let line = new Uint8Array(0);
  let above = new Uint8Array(0);
  let filled = 0;
  const begin = () => {
    const length = Math.ceil((passes[pass].pixels * bits) / 8);
    // The byte before a row is its filter's.
    [line, above, filled] = [new Uint8Array(length + 1), new Uint8Array(length + 1), 0];
  };
  begin();
  const take = (part: Uint8Array) => {
    for (let at = 0; at < part.length && pass < passes.length;) {
      const count = Math.min(line.length - filled, part.length - at);
      line.set(part.subarray(at, at + count), filled);
      filled += count;
      at += count;
      if (filled < line.length) return;
      unfilter(line, above, back);
      const { x, y, dx, dy, pixels, rows } = passes[pass];
      row(line.subarray(1), pixels, { x, y: y + done * dy, dx });
      [line, above, filled] = [above, line, 0];
      if (++done < rows) continue;
      done = 0;
      if (++pass < passes.length) begin();
    }
  };
  const inflating = new Unzlib(take);
  for (const { name, data } of chunksOf(bytes)) {
    if (name !== 'IDAT') continue;
    for (let at = 0; at < data.length && pass < passes.length; at += AT_ONCE)
      inflating.push(data.subarray(at, at + AT_ONCE));
    if (pass >= passes.length) return;
  }
  // What is still in it.
  if (pass < passes.length) inflating.push(new Uint8Array(0), true);
  if (pass < passes.length) throw new BrokenPng('it ends before its last row');
}

/** Undoes a row's filter (9.2), by the row above it. @param back bytes to the same sample of the pixel before. */
function unfilter(line: Uint8Array, above: Uint8Array, back: number): void {
  const [filter] = line;
  if (filter > 4) throw new BrokenPng(`there is no filter ${filter}`);
  if (filter === 0) return;
  for (let i = 1; i < line.length; i++) {
    const a = i > back ? line[i - back] : 0;
    const b = above[i];
    if (filter === 1) line[i] += a;
    else if (filter === 2) line[i] += b;
    else if (filter === 3) line[i] += (a + b) >> 1;
    else line[i] += paeth(a, b, i > back ? above[i - back] : 0);
  }
}

/** The neighbour that is nearest to left + above − upper left (9.4). */
function paeth(a: number, b: number, c: number): number {
  const [pa, pb, pc] = [Math.abs(b - c), Math.abs(a - c), Math.abs(a + b - 2 * c)];
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
}
