import { type Affine, compose, inverse } from '../../geometry/affine.ts';
import type { GreyMap, PlacedGreys } from './grey-map.ts';

/** Dots of a scan: rows from the top (the greatest v), along u; u and v are the sheet turned by the scan’s angle. */
export interface DotGrid {
  columns: number;
  rows: number;
  /** Lower left corner and distance of the dots, mm. */
  u: number;
  v: number;
  pitch: number;
  /** Direction of the rows, radians from x. */
  angle: number;
}

/** Greys of a grid of dots, 0 black to 255 white; 255 and not inside where the picture does not reach. */
export interface Sampled extends DotGrid {
  greys: Uint8Array;
  inside: Uint8Array;
}

/** What of a picture is taken, as shares of its width and height from its upper left corner. */
export interface Crop {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Places of a pixel looked at along each way at most; coarser pictures are halved first. */
const MOST_PLACES = 4;

/**
 * A picture on a grid of dots: each dot is the mean of what lies under it.
 *
 * @param pitch distance of dots and rows, mm. @param angle of the rows, radians.
 * @throws {RangeError} from `check` where the grid would be too large.
 */
export function sampled(
  { grey, map }: PlacedGreys,
  { left, top, right, bottom }: Crop,
  pitch: number,
  angle: number,
  check: (dots: number) => void,
): Sampled {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  // From pixels to u and v.
  const turned: Affine = compose(map, [c, -s, s, c, 0, 0]);
  const [x0, x1] = [left * grey.width, (1 - right) * grey.width];
  const [y0, y1] = [top * grey.height, (1 - bottom) * grey.height];
  const us: number[] = [];
  const vs: number[] = [];
  for (const x of [x0, x1])
    for (const y of [y0, y1]) {
      us.push(turned[0] * x + turned[2] * y + turned[4]);
      vs.push(turned[1] * x + turned[3] * y + turned[5]);
    }
  const [u, v] = [Math.min(...us), Math.min(...vs)];
  const columns = Math.max(1, Math.round((Math.max(...us) - u) / pitch));
  const rows = Math.max(1, Math.round((Math.max(...vs) - v) / pitch));
  check(columns * rows);
  const back = inverse(turned)!;
  const grid: DotGrid = { columns, rows, u, v, pitch, angle };
  const greys = new Uint8Array(columns * rows).fill(255);
  const inside = new Uint8Array(columns * rows);
  // Pixels that a dot is wide.
  let wide = pitch * Math.hypot(back[0], back[1], back[2], back[3]) * Math.SQRT1_2;
  let from = grey;
  let halved = 1;
  while (wide > MOST_PLACES) {
    from = half(from);
    halved *= 2;
    wide /= 2;
  }
  const places = Math.max(1, Math.ceil(wide - 1e-9));
  const step = pitch / places;
  const count = places * places;
  const [a, b, cc, d, e, f] = back;
  if (places === 1) {
    // One pixel a dot, or less: nothing to mean.
    const { greys: pixels, width, height } = from;
    for (let row = 0, k = 0; row < rows; row++) {
      const vv = v + (rows - row - 0.5) * pitch;
      let px = (a * (u + pitch / 2) + cc * vv + e) / halved;
      let py = (b * (u + pitch / 2) + d * vv + f) / halved;
      const [dx, dy] = [(a * pitch) / halved, (b * pitch) / halved];
      const [minX, maxX, minY, maxY] = [x0, x1, y0, y1].map((edge) => edge / halved);
      for (let column = 0; column < columns; column++, k++, px += dx, py += dy) {
        if (px < minX - 1e-6 || px > maxX + 1e-6 || py < minY - 1e-6 || py > maxY + 1e-6) continue;
        const x = px < 0 ? 0 : px >= width ? width - 1 : px | 0;
        const y = py < 0 ? 0 : py >= height ? height - 1 : py | 0;
        greys[k] = pixels[y * width + x];
        inside[k] = 1;
      }
    }
    return { ...grid, greys, inside };
  }
  for (let row = 0, k = 0; row < rows; row++) {
    const vTop = v + (rows - row) * pitch - step / 2;
    for (let column = 0; column < columns; column++, k++) {
      const uLeft = u + column * pitch + step / 2;
      let sum = 0;
      let met = 0;
      for (let j = 0; j < places; j++) {
        const vv = vTop - j * step;
        for (let i = 0; i < places; i++) {
          const uu = uLeft + i * step;
          const px = a * uu + cc * vv + e;
          const py = b * uu + d * vv + f;
          if (px < x0 - 1e-6 || px > x1 + 1e-6 || py < y0 - 1e-6 || py > y1 + 1e-6) continue;
          const x = Math.min(from.width - 1, Math.max(0, Math.floor(px / halved)));
          const y = Math.min(from.height - 1, Math.max(0, Math.floor(py / halved)));
          sum += from.greys[y * from.width + x];
          met++;
        }
      }
      if (2 * met < count) continue;
      inside[k] = 1;
      greys[k] = Math.round(sum / met);
    }
  }
  return { ...grid, greys, inside };
}

/** Half as wide and high, each pixel the mean of four. */
function half({ width, height, greys }: GreyMap): GreyMap {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [x1, y1] = [Math.min(2 * x + 1, width - 1), Math.min(2 * y + 1, height - 1)];
      const sum = greys[2 * y * width + 2 * x] + greys[2 * y * width + x1] + greys[y1 * width + 2 * x] + greys[y1 * width + x1]; // prettier-ignore
      out[y * w + x] = (sum + 2) >> 2;
    }
  return { width: w, height: h, greys: out };
}
