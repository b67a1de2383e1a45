import type { Affine } from '../../geometry/affine.ts';
import type { GreyMap, PlacedGreys } from './grey-map.ts';
import type { DotGrid } from './sampled.ts';

/** A picture to be looked at: how dark each of its places is, rows from the top. */
export interface Raster {
  columns: number;
  rows: number;
  /** 0 clear to 255. */
  dark: Uint8Array;
  /** From places (x right, y down from the upper left corner) to mm on the sheet. */
  map: Affine;
}

/** Dots of a scan as a picture. */
export function rasterOfDots({ columns, rows, u, v, pitch, angle }: DotGrid, dark: Uint8Array): Raster {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const top = v + rows * pitch;
  return { columns, rows, dark, map: [c * pitch, s * pitch, s * pitch, -c * pitch, u * c - top * s, u * s + top * c] };
}

/**
 * Half as fine, each place as dark as four together.
 * @example halved({ columns: 2, rows: 2, dark: Uint8Array.of(0, 255, 255, 0), map: [1, 0, 0, -1, 0, 2] }).dark // [128]
 */
export function halved({ columns, rows, dark, map }: Raster): Raster {
  const [w, h] = [Math.ceil(columns / 2), Math.ceil(rows / 2)];
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) {
    const upper = 2 * y * columns;
    // What lies over the edge is as what lies beside it.
    const lower = 2 * y + 1 < rows ? upper + columns : upper;
    const last = columns - 1;
    for (let x = 0, k = y * w; x < w; x++, k++) {
      const left = 2 * x;
      const right = left < last ? left + 1 : left;
      out[k] = (dark[upper + left] + dark[upper + right] + dark[lower + left] + dark[lower + right] + 2) >> 2;
    }
  }
  const [a, b, c, d, e, f] = map;
  return { columns: w, rows: h, dark: out, map: [2 * a, 2 * b, 2 * c, 2 * d, e, f] };
}

/** More places than this are not looked at. */
const MOST = 1_500_000;

/** A picture of an item, no finer than it is looked at. */
export function rasterOfGreys({ grey, map }: PlacedGreys): Raster {
  let step = 1;
  while ((grey.width / step) * (grey.height / step) > MOST) step++;
  const [columns, rows] = [Math.ceil(grey.width / step), Math.ceil(grey.height / step)];
  const [a, b, c, d, e, f] = map;
  return { columns, rows, dark: meant(grey, step, columns, rows), map: [a * step, b * step, c * step, d * step, e, f] };
}

/** How dark squares of some pixels are together. */
function meant({ width, height, greys }: GreyMap, step: number, columns: number, rows: number): Uint8Array {
  const dark = new Uint8Array(columns * rows);
  for (let row = 0, k = 0; row < rows; row++)
    for (let column = 0; column < columns; column++, k++) {
      let [sum, count] = [0, 0];
      for (let y = row * step; y < Math.min(height, (row + 1) * step); y++)
        for (let x = column * step; x < Math.min(width, (column + 1) * step); x++) {
          sum += greys[y * width + x];
          count++;
        }
      dark[k] = 255 - Math.round(sum / count);
    }
  return dark;
}
