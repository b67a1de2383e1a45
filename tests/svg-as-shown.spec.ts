import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { ArtworkError } from '../core/src/artwork/artwork-error.ts';
import { importSvg } from '../core/src/artwork/svg.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { madeDrawing } from './svg-drawings.ts';

// What a browser paints is the reference: Chromium reads the same files with code of its own.
const COUNT = Number(process.env.KERBE_DRAWINGS ?? 100);
const SEED = Number(process.env.KERBE_SEED ?? 1);
/** Dots in which pictures 300 dots high may differ: edges are smoothed by other rules. */
const FEW = 25;

/** How many dots differ between a drawing as the browser shows it and the same as it is read here; nothing where it is refused. */
async function differing(page: Page, svg: string): Promise<number | undefined> {
  const clipper = await clipperFromDisk();
  let [width, height] = [100, 100];
  let shapes: { d: string; rule: CanvasFillRule }[] = [];
  try {
    const drawing = importSvg(new TextEncoder().encode(svg), clipper);
    ({ width, height } = drawing);
    shapes = drawing.shapes.map(({ outlines, rule }) => ({
      rule,
      d: outlines
        .map(({ points }) => {
          let d = '';
          for (let i = 0; i < points.length; i += 2) d += `${i ? 'L' : 'M'}${points[i]} ${points[i + 1]}`;
          return `${d}z`;
        })
        .join(''),
    }));
  } catch (error) {
    if (!(error instanceof ArtworkError)) throw error;
    // A rule may clip what lies in the clip path itself, which is refused.
    if (/in a circle/.test(error.message)) return undefined;
    // Otherwise nothing shows.
    expect(error.message).toMatch(/no outlines that show|has no size/);
  }
  return page.evaluate(
    async ({ svg, shapes, width, height }) => {
      const scale = 300 / height;
      const [w, h] = [Math.round(width * scale), 300];
      const canvas = () => new OffscreenCanvas(w, h).getContext('2d')!;
      const shown = canvas();
      const image = new Image();
      image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
      await image.decode();
      shown.drawImage(image, 0, 0, w, h);
      const taken = canvas();
      taken.setTransform(w / width, 0, 0, -h / height, 0, h);
      for (const { d, rule } of shapes) taken.fill(new Path2D(d), rule);
      const [a, b] = [shown, taken].map((c) => c.getImageData(0, 0, w, h).data);
      let found = 0;
      for (let i = 3; i < a.length; i += 4) if (Math.abs(a[i] - b[i]) > 150) found++;
      return found;
    },
    { svg, shapes, width, height },
  );
}

test('drawings are taken as a browser shows them', async ({ page }) => {
  const off: string[] = [];
  let compared = 0;
  for (let seed = SEED; seed < SEED + COUNT; seed++) {
    const found = await differing(page, madeDrawing(seed));
    if (found === undefined) continue;
    compared++;
    if (found > FEW) off.push(`KERBE_SEED=${seed} KERBE_DRAWINGS=1: ${found} dots`);
  }
  expect(off).toEqual([]);
  expect(compared).toBeGreaterThan(0.8 * COUNT - 1);
});

test('the demo’s own drawings are taken as a browser shows them', async ({ page }) => {
  for (const name of ['entrance-board', 'meridian-plate', 'night-light', 'trail-star'])
    expect(
      await differing(page, readFileSync(new URL(`../demo/artwork/${name}.svg`, import.meta.url), 'utf8')),
    ).toBeLessThan(FEW);
});
