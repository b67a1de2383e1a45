import { ArtworkError } from '../../artwork-error.ts';
import {
  checkPixels,
  type Density,
  densityOf,
  type GreyMap,
  greysFrom,
  LARGEST_PICTURE,
} from '../../greys/grey-map.ts';
import { pictureDrawing, takenDensity } from '../../greys/picture-drawing.ts';
import type { Format } from '../format.ts';
import { BrokenPng, chunksOf, type PngHeader, pngHeader, readRows, SAMPLES } from './png-rows.ts';

const SIGNATURE = [137, 80, 78, 71, 13, 10, 26, 10];

/** Portable Network Graphics (ISO/IEC 15948): any depth and colour, pHYs for its size. */
export const pngFormat: Format = {
  name: 'PNG',
  is: (bytes) => SIGNATURE.every((byte, k) => bytes[k] === byte),
  parse(bytes) {
    sizeOf(bytes);
    const grey = greysOf(bytes);
    const drawing = pictureDrawing(grey, physical(bytes));
    return () => drawing;
  },
  page(bytes) {
    const { width, height } = sizeOf(bytes);
    const density = takenDensity(physical(bytes));
    return { width: width / density.x, height: height / density.y };
  },
};

const broken = () => new ArtworkError('This PNG is broken; open it where it was made, save it again and import that.');

/** Its greys, row by row, so that no more is in memory than they take. */
function greysOf(bytes: Uint8Array): GreyMap {
  try {
    const header = pngHeader(bytes);
    const { width, height, depth, colour } = header;
    const palette = colour === 3 ? paletteOf(bytes) : undefined;
    const greys = new Uint8Array(width * height);
    const channels = palette ? palette.channels : SAMPLES[colour];
    readRows(bytes, header, (line, pixels, { x, y, dx }) => {
      const samples = samplesOf(line, pixels * SAMPLES[colour], header);
      const row = greysFrom(
        palette ? throughPalette(samples, palette) : samples,
        pixels,
        1,
        channels,
        !palette && depth === 16 ? 65535 : 255,
      );
      for (let k = 0, at = y * width + x; k < pixels; k++, at += dx) greys[at] = row.greys[k];
    });
    return { width, height, greys };
  } catch (error) {
    if (error instanceof ArtworkError) throw error;
    throw broken();
  }
}

/** Samples of a row: of 8 and 16 bits as they are, smaller greys spread to 0 … 255, palette numbers as they are. */
function samplesOf(line: Uint8Array, count: number, { depth, colour }: PngHeader): ArrayLike<number> {
  if (depth === 8) return line;
  const out = new Uint16Array(count);
  if (depth === 16) {
    for (let k = 0; k < count; k++) out[k] = (line[2 * k] << 8) | line[2 * k + 1];
    return out;
  }
  const most = 2 ** depth - 1;
  for (let k = 0; k < count; k++) {
    const bit = k * depth;
    const value = (line[bit >> 3] >> (8 - depth - (bit & 7))) & most;
    out[k] = colour === 3 ? value : Math.round((255 * value) / most);
  }
  return out;
}

interface Palette {
  channels: 3 | 4;
  entries: Uint8Array[];
}

/** Colours by number (PLTE), and how clear they are (tRNS). */
function paletteOf(bytes: Uint8Array): Palette {
  let [colours, clear]: (Uint8Array | undefined)[] = [];
  for (const { name, data } of chunksOf(bytes)) {
    if (name === 'PLTE') colours = data;
    else if (name === 'tRNS') clear = data;
    else if (name === 'IDAT') break;
  }
  if (!colours || colours.length % 3 !== 0) throw new BrokenPng('it has no palette');
  const own = colours;
  const entries = Array.from({ length: own.length / 3 }, (_, k) => {
    const colour = own.subarray(3 * k, 3 * k + 3);
    return Uint8Array.of(...colour, ...(clear ? [clear[k] ?? 255] : []));
  });
  return { channels: clear ? 4 : 3, entries };
}

function throughPalette(numbers: ArrayLike<number>, { channels, entries }: Palette): Uint8Array {
  const out = new Uint8Array(numbers.length * channels);
  for (let k = 0; k < numbers.length; k++) {
    const entry = entries[numbers[k]];
    if (!entry) throw new BrokenPng('a pixel has no colour in the palette');
    out.set(entry, k * channels);
  }
  return out;
}

/** From IHDR, which comes first. */
function sizeOf(bytes: Uint8Array): { width: number; height: number } {
  if (bytes.length > LARGEST_PICTURE)
    throw new ArtworkError(`The picture’s file is ${Math.round(bytes.length / 1e6)} MB, and ${LARGEST_PICTURE / 1e6} MB are the most; make the picture smaller and import it again.`); // prettier-ignore
  if (bytes.length < 33) throw broken();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  checkPixels(width, height);
  return { width, height };
}

/** From pHYs (ISO/IEC 15948, 11.3.5.3): pixels a metre, where its unit is the metre. */
function physical(bytes: Uint8Array): Density {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (name === 'IDAT' || name === 'IEND') return undefined;
    if (name === 'pHYs' && length === 9 && at + 17 <= bytes.length)
      return bytes[at + 16] === 1
        ? densityOf(view.getUint32(at + 8) / 1000, view.getUint32(at + 12) / 1000)
        : undefined;
    at += 12 + length;
  }
  return undefined;
}
