import { describe, expect, test } from 'vitest';
import { letterPage } from '../command/src/bench-page.ts';
import { importSvg } from '../core/src/artwork/svg.ts';
import { checkWalls } from '../core/src/carving/wall-check.ts';
import { carvablesOf } from '../core/src/ways/carvable.ts';
import { vCarve } from '../core/src/cuts/v-carve/v-carve.ts';
import { areaOf } from '../core/src/artwork/united-shapes.ts';
import { FACES } from '../core/src/document/item.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';

const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 40 };
const settings = { bit, depthLimit: 100, floorStep: 0.5, feed: 1500, plunge: 1200, lift: 5, rapid: 2400 };

// The ideal wall follows from the groove's trigonometry; the limits are those of the design.
describe('lettering', () => {
  test.each(FACES)('%s: walls within 20 µm of the ideal depth, nothing outside cut by 10 µm', async (face) => {
    const clipper = await clipperFromDisk();
    const { shapes } = importSvg(new TextEncoder().encode(letterPage(30, { face })), clipper);
    const { area } = areaOf(shapes, clipper);
    const { path, lifts } = await vCarve(await carvablesOf(shapes, clipper), settings, clipper);
    const found = checkWalls(path, bit, area, 0.05);
    expect(found.gouge).toBeLessThan(0.01);
    expect(found.standing999).toBeLessThan(0.02);
    // One walk a connected part, or hardly more: the axis of a letter is gone over without lifting.
    const parts = area.filter((loop) => loop.length > 0).length;
    expect(lifts).toBeLessThan(parts * 1.2);
  });
  test('letters that overlap, as in a script, are carved as one', async () => {
    const clipper = await clipperFromDisk();
    const bar = (x: number) => `<path d="M${x} 0 q8 12 16 0 v6 q-8 12 -16 0z"/>`;
    const svg = `<svg width="60mm" height="20mm" viewBox="0 0 60 20">${[2, 14, 26, 38].map(bar).join('')}</svg>`;
    const { shapes } = importSvg(new TextEncoder().encode(svg), clipper);
    const carvables = await carvablesOf(shapes, clipper);
    expect(carvables.places).toHaveLength(1);
    const { path } = await vCarve(carvables, settings, clipper);
    const found = checkWalls(path, bit, areaOf(shapes, clipper).area, 0.05);
    expect(found.gouge).toBeLessThan(0.01);
    expect(found.standing999).toBeLessThan(0.02);
  });
});
