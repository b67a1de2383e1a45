import { ArtworkError } from '../../artwork-error.ts';
import { checkPixels, type Density, densityOf, greysFrom, LARGEST_PICTURE } from '../../greys/grey-map.ts';
import { pictureDrawing, takenDensity } from '../../greys/picture-drawing.ts';
import type { Format } from '../format.ts';

/** A bitmap’s heads: BITMAPFILEHEADER and BITMAPINFOHEADER or a later one, which begins alike. */
interface Head {
  width: number;
  height: number;
  /** Its rows come from the top. */
  down: boolean;
  bits: number;
  pixels: number;
  palette: number;
  colours: number;
  density: Density;
}

/** Uncompressed Windows bitmaps of 1, 4, 8, 24 and 32 bits, by palette or in colour. */
export const bmpFormat: Format = {
  name: 'BMP',
  is: (bytes) => bytes[0] === 0x42 && bytes[1] === 0x4d,
  parse(bytes) {
    const head = headOf(bytes);
    const drawing = pictureDrawing(greysFrom(rows(bytes, head), head.width, head.height, 3), head.density);
    return () => drawing;
  },
  page(bytes) {
    const { width, height, density } = headOf(bytes);
    const { x, y } = takenDensity(density);
    return { width: width / x, height: height / y };
  },
};

const broken = () => new ArtworkError('This BMP is broken; open it where it was made, save it as PNG and import that.');

function headOf(bytes: Uint8Array): Head {
  if (bytes.length > LARGEST_PICTURE)
    throw new ArtworkError(`The picture’s file is ${Math.round(bytes.length / 1e6)} MB, and ${LARGEST_PICTURE / 1e6} MB are the most; save it as PNG, or make it smaller.`); // prettier-ignore
  if (bytes.length < 54) throw broken();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const size = view.getUint32(14, true);
  const [width, signed] = [view.getInt32(18, true), view.getInt32(22, true)];
  const [bits, packed] = [view.getUint16(28, true), view.getUint32(30, true)];
  if (size < 40) throw broken();
  const height = Math.abs(signed);
  checkPixels(width, height);
  // Three masks beside 32 bits stand for the usual order of colours, which is what nearly all have.
  if (![1, 4, 8, 24, 32].includes(bits) || (packed !== 0 && !(packed === 3 && bits === 32)))
    throw new ArtworkError(`This BMP is packed, or has ${bits} bits a pixel; save it as PNG and import that.`);
  const head: Head = {
    width,
    height,
    down: signed < 0,
    bits,
    pixels: view.getUint32(10, true),
    palette: 14 + size,
    colours: bits <= 8 ? view.getUint32(46, true) || 2 ** bits : 0,
    density: densityOf(view.getInt32(38, true) / 1000, view.getInt32(42, true) / 1000),
  };
  if (head.pixels + stride(head) * height > bytes.length || head.palette + 4 * head.colours > bytes.length)
    throw broken();
  return head;
}

/** Bytes of a row, which is filled up to four. */
const stride = ({ width, bits }: Pick<Head, 'width' | 'bits'>): number => 4 * Math.ceil((width * bits) / 32);

/** Red, green and blue, from the top. */
function rows(bytes: Uint8Array, head: Head): Uint8Array {
  const { width, height, bits, down, pixels, palette, colours } = head;
  const out = new Uint8Array(3 * width * height);
  const most = 2 ** bits - 1;
  for (let y = 0; y < height; y++) {
    const row = pixels + (down ? y : height - 1 - y) * stride(head);
    for (let x = 0; x < width; x++) {
      let at = row + (x * bits) / 8;
      if (bits <= 8) {
        const bit = (x * bits) & 7;
        const index = (bytes[row + ((x * bits) >> 3)] >> (8 - bits - bit)) & most;
        at = palette + 4 * Math.min(index, colours - 1);
      }
      const to = 3 * (y * width + x);
      out[to] = bytes[at + 2];
      out[to + 1] = bytes[at + 1];
      out[to + 2] = bytes[at];
    }
  }
  return out;
}
