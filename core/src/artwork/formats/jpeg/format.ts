import jpeg from 'jpeg-js';
import { ArtworkError } from '../../artwork-error.ts';
import { checkPixels, type Density, greysFrom, type GreyMap, LARGEST_PICTURE } from '../../greys/grey-map.ts';
import { pictureDrawing, takenDensity } from '../../greys/picture-drawing.ts';
import type { Format } from '../format.ts';
import { type JpegFacts, jpegFacts } from './segments.ts';

/** Most pixels of a JPEG, which is decoded whole: its coefficients take twelve bytes a pixel. */
const MOST_JPEG = 60e6;

/** JPEG (ITU-T T.81), grey or in colour, turned as its Exif says. */
export const jpegFormat: Format = {
  name: 'JPEG',
  is: (bytes) => bytes[0] === 0xff && bytes[1] === 0xd8,
  parse(bytes) {
    const facts = checked(bytes);
    const upright = oriented(decoded(bytes), facts.orientation);
    const drawing = pictureDrawing(upright, turnedDensity(facts));
    return () => drawing;
  },
  page(bytes) {
    const facts = checked(bytes);
    const { x, y } = takenDensity(turnedDensity(facts));
    const [width, height] = facts.orientation >= 5 ? [facts.height, facts.width] : [facts.width, facts.height];
    return { width: width / x, height: height / y };
  },
};

const broken = () => new ArtworkError('This JPEG is broken; open it where it was made, save it again and import that.');

function checked(bytes: Uint8Array): JpegFacts {
  if (bytes.length > LARGEST_PICTURE)
    throw new ArtworkError(`The picture’s file is ${Math.round(bytes.length / 1e6)} MB, and ${LARGEST_PICTURE / 1e6} MB are the most; make the picture smaller and import it again.`); // prettier-ignore
  const facts = jpegFacts(bytes);
  if (!facts) throw broken();
  checkPixels(facts.width, facts.height, MOST_JPEG);
  if (facts.components === 4)
    throw new ArtworkError('This JPEG is in CMYK, the inks of a press; save it in RGB or in greys and import that.');
  if (facts.bits !== 8)
    throw new ArtworkError(`This JPEG has ${facts.bits} bits a sample; save it with 8, or as PNG, and import that.`);
  return facts;
}

function decoded(bytes: Uint8Array): GreyMap {
  try {
    const { width, height, data } = jpeg.decode(bytes, {
      useTArray: true,
      formatAsRGBA: false,
      maxResolutionInMP: MOST_JPEG / 1e6,
      maxMemoryUsageInMB: 1500,
      tolerantDecoding: false,
    });
    return greysFrom(data, width, height, 3);
  } catch {
    throw broken();
  }
}

const turnedDensity = ({ density, orientation }: JpegFacts): Density =>
  density && orientation >= 5 ? { x: density.y, y: density.x } : density;

/** Upright, from any of the eight ways in which a camera may have been held. */
function oriented(picture: GreyMap, orientation: number): GreyMap {
  if (orientation === 1) return picture;
  const { width, height, greys } = picture;
  const [mirrored, upside, aside] = [[2, 4, 5, 7].includes(orientation), [3, 4, 7, 8].includes(orientation), orientation >= 5]; // prettier-ignore
  const [w, h] = aside ? [height, width] : [width, height];
  const out = new Uint8Array(greys.length);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let [sx, sy] = aside ? [y, x] : [x, y];
      if (aside) {
        if (orientation === 6 || orientation === 7) sy = height - 1 - sy;
        if (orientation === 7 || orientation === 8) sx = width - 1 - sx;
      } else {
        if (mirrored !== upside) sx = width - 1 - sx;
        if (upside) sy = height - 1 - sy;
      }
      out[y * w + x] = greys[sy * width + sx];
    }
  return { width: w, height: h, greys: out };
}
