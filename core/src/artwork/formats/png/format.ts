import { convertIndexedToRgb, decode, type DecodedPng } from 'fast-png';
import { ArtworkError } from '../../artwork-error.ts';
import { checkPixels, type Density, densityOf, greysFrom, LARGEST_PICTURE } from '../../greys/grey-map.ts';
import { pictureDrawing, takenDensity } from '../../greys/picture-drawing.ts';
import type { Format } from '../format.ts';

const SIGNATURE = [137, 80, 78, 71, 13, 10, 26, 10];

/** Portable Network Graphics (ISO/IEC 15948): any depth and colour, pHYs for its size. */
export const pngFormat: Format = {
  name: 'PNG',
  is: (bytes) => SIGNATURE.every((byte, k) => bytes[k] === byte),
  parse(bytes) {
    const { width, height } = sizeOf(bytes);
    const png = decoded(bytes);
    if (png.width !== width || png.height !== height) throw broken();
    const indexed = png.palette !== undefined;
    const channels = indexed ? png.palette![0].length : png.channels;
    const data = indexed ? convertIndexedToRgb(png) : unpacked(png);
    const grey = greysFrom(data, width, height, channels, png.depth === 16 ? 65535 : 255);
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

function decoded(bytes: Uint8Array): DecodedPng {
  try {
    return decode(bytes);
  } catch {
    throw broken();
  }
}

/** Of greys of 1, 2 or 4 bits a byte each, 0 to 255. */
function unpacked({ data, depth, width, height, channels }: DecodedPng): ArrayLike<number> {
  if (depth >= 8) return data;
  const out = new Uint8Array(width * height * channels);
  const row = Math.ceil((width * channels * depth) / 8);
  const most = 2 ** depth - 1;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width * channels; x++) {
      const bit = x * depth;
      const value = (data[y * row + (bit >> 3)] >> (8 - depth - (bit & 7))) & most;
      out[y * width * channels + x] = Math.round((255 * value) / most);
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
