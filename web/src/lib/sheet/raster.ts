import { halved, type Raster } from '@kerbe/core/artwork/greys/raster';

/** A raster at each of its finenesses, the finest first, and as pictures in a colour. */
const levels = new WeakMap<Uint8Array, Raster[]>();
const pictures = new WeakMap<Raster, { colour: string; canvas: OffscreenCanvas }>();

/** Places are no smaller than this on the screen, pixels: finer ones are meant together. */
const FINEST = 0.75;

/**
 * Draws a picture in one colour, as dark as its places are.
 * @param context with mm as its units. @param k device pixels a mm.
 */
export function paintRaster(
  context: OffscreenCanvasRenderingContext2D,
  raster: Raster,
  colour: string,
  k: number,
): void {
  const all = levels.get(raster.dark) ?? levels.set(raster.dark, [raster]).get(raster.dark)!;
  const wide = Math.hypot(raster.map[0], raster.map[1]) * k;
  let level = 0;
  while (wide * 2 ** level < FINEST && Math.min(all[level].columns, all[level].rows) > 1) {
    level++;
    all[level] ??= halved(all[level - 1]);
  }
  const shown = all[level];
  let picture = pictures.get(shown);
  if (picture?.colour !== colour) pictures.set(shown, (picture = { colour, canvas: coloured(shown, colour) }));
  context.save();
  context.transform(...shown.map);
  context.imageSmoothingEnabled = wide * 2 ** level < 2;
  context.drawImage(picture.canvas, 0, 0);
  context.restore();
}

function coloured({ columns, rows, dark }: Raster, colour: string): OffscreenCanvas {
  const canvas = new OffscreenCanvas(columns, rows);
  const ink = canvas.getContext('2d')!;
  ink.fillStyle = colour;
  ink.fillRect(0, 0, 1, 1);
  const [r, g, b] = ink.getImageData(0, 0, 1, 1).data;
  const image = ink.createImageData(columns, rows);
  const pixels = new Uint32Array(image.data.buffer);
  const base = r | (g << 8) | (b << 16);
  for (let i = 0; i < dark.length; i++) pixels[i] = base | (dark[i] << 24);
  ink.putImageData(image, 0, 0);
  return canvas;
}
