import { type Density, densityOf } from '../../greys/grey-map.ts';

/** What the heads of a JPEG say. */
export interface JpegFacts {
  width: number;
  height: number;
  /** Bits a sample, and samples a pixel: 1 grey, 3 colour, 4 for print. */
  bits: number;
  components: number;
  density: Density;
  /** How it is to be turned (Exif 2.3, orientation 1 … 8). */
  orientation: number;
}

/**
 * Reads the heads of a JPEG (ITU-T T.81) up to its frame: size, kind, and density by JFIF (ITU-T T.871) or Exif.
 * @returns nothing where it has no frame.
 */
export function jpegFacts(bytes: Uint8Array): JpegFacts | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  let jfif: Density;
  let exif: Pick<JpegFacts, 'density' | 'orientation'> | undefined;
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1];
    if (marker === 0xff) {
      at++;
      continue;
    }
    const length = view.getUint16(at + 2);
    const body = at + 4;
    if (length < 2 || at + 2 + length > bytes.length) return undefined;
    const called = (name: string) => [...name].every((letter, k) => bytes[body + k] === letter.charCodeAt(0));
    if (marker === 0xe0 && called('JFIF\0') && length >= 16) {
      const per = [0, 25.4, 10][bytes[body + 7]] ?? 0;
      if (per > 0) jfif = densityOf(view.getUint16(body + 8) / per, view.getUint16(body + 10) / per);
    } else if (marker === 0xe1 && called('Exif\0\0')) exif ??= exifFacts(bytes.subarray(body + 6, at + 2 + length));
    // Frames: SOF0 … SOF15 without DHT, JPG and DAC.
    else if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)) {
      if (length < 8) return undefined;
      return {
        bits: bytes[body],
        height: view.getUint16(body + 1),
        width: view.getUint16(body + 3),
        components: bytes[body + 5],
        density: jfif ?? exif?.density,
        orientation: exif?.orientation ?? 1,
      };
    } else if (marker === 0xda || marker === 0xd9) return undefined;
    at += 2 + length;
  }
  return undefined;
}

/** Orientation and resolution from the first directory of a TIFF head (Exif 2.3, 4.6.4). */
function exifFacts(tiff: Uint8Array): Pick<JpegFacts, 'density' | 'orientation'> | undefined {
  if (tiff.length < 14) return undefined;
  const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.length);
  const little = view.getUint16(0) === 0x4949;
  const first = view.getUint32(4, little);
  if (first + 2 > tiff.length) return undefined;
  let [x, y, unit, orientation] = [0, 0, 2, 1];
  const ratio = (at: number) =>
    at + 8 <= tiff.length ? view.getUint32(at, little) / view.getUint32(at + 4, little) : 0;
  for (let k = 0; k < view.getUint16(first, little); k++) {
    const entry = first + 2 + 12 * k;
    if (entry + 12 > tiff.length) break;
    const tag = view.getUint16(entry, little);
    if (tag === 0x0112) orientation = view.getUint16(entry + 8, little);
    else if (tag === 0x011a) x = ratio(view.getUint32(entry + 8, little));
    else if (tag === 0x011b) y = ratio(view.getUint32(entry + 8, little));
    else if (tag === 0x0128) unit = view.getUint16(entry + 8, little);
  }
  const per = unit === 3 ? 10 : 25.4;
  return { density: densityOf(x / per, y / per), orientation: orientation >= 1 && orientation <= 8 ? orientation : 1 };
}
