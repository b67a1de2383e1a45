import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkWalls } from '../carving/wall-check.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { type HardOutline, hardOutlines } from '../geometry/hard-outlines.ts';
import { carvablesOf } from '../ways/carvable.ts';
import { vCarve, type VCarveSettings } from './v-carve/v-carve.ts';

const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 40 };
const settings = { bit, depthLimit: 100, floorStep: 0.5, feed: 1500, plunge: 1200, lift: 5, rapid: 2400 };

async function walls({ loops, rule }: Pick<HardOutline, 'loops' | 'rule'>, more: Partial<VCarveSettings> = {}) {
  const shape = { name: '', rule, outlines: loops.map((points) => ({ points, closed: true })) };
  const carvables = await carvablesOf([shape], clipper);
  const { path } = await vCarve(carvables, { ...settings, ...more }, clipper);
  return checkWalls(path, more.bit ?? bit, clipper.union(loops, rule), 0.03);
}

// The ideal wall follows from the groove's trigonometry: over the outline the cone just comes to the top of the stock.
describe('walls within 20 µm of the ideal depth, nothing outside cut by more than 10 µm', () => {
  test.each(hardOutlines().map((outline) => [outline.name, outline] as const))('%s', async (_, outline) => {
    const found = await walls(outline);
    expect(found.places).toBeGreaterThan(300);
    expect(found.gouge).toBeLessThan(0.01);
    expect(found.standing999).toBeLessThan(0.02);
    expect(found.standing).toBeLessThan(0.05);
  });
  test('with a flat floor as well', async () => {
    const outline = hardOutlines().find(({ name }) => name === 'holes within holes')!;
    const found = await walls(outline, { depthLimit: 1 });
    expect(found.gouge).toBeLessThan(0.01);
    expect(found.standing999).toBeLessThan(0.02);
  });
  test('random stars', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.double({ min: 2, max: 20, noNaN: true }), { minLength: 5, maxLength: 30 }),
        async (radii) => {
          const points = Float64Array.from(
            radii.flatMap((r, i) => [
              r * Math.cos((2 * Math.PI * i) / radii.length),
              r * Math.sin((2 * Math.PI * i) / radii.length),
            ]),
          );
          const found = await walls({ loops: [points], rule: 'nonzero' });
          expect(found.gouge).toBeLessThan(0.01);
          expect(found.standing999).toBeLessThan(0.02);
        },
      ),
      {
        numRuns: 60,
        seed: 17,
        endOnFailure: true,
        examples: [
          // A blunt corner beside a junction: of the junction's three walls only two are those of its branch.
          [
            [
              3.603, 4.112, 3.377, 2.61, 3.079, 3.468, 10.104, 2.979, 14.234, 5.919, 13.021, 12.263, 9.13, 2.708, 4.73,
              3.037,
            ],
          ],
          // A chain that turned back on itself for a moment, and whose longer span was not looked at again.
          [
            [
              5.32, 11.01, 11.705, 10.118, 11.813, 4.275, 5.082, 2, 6.943, 2, 5.213, 3.564, 10.242, 15.223, 10.958,
              14.344, 20, 2.51, 6.967, 6.688,
            ],
          ],
        ],
      },
    );
  });
  test('random stars by tips with a flat, with floors and in passes: nothing outside is cut', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.double({ min: 3, max: 30, noNaN: true }), { minLength: 5, maxLength: 24 }),
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.constantFrom(Infinity, 1),
        fc.constantFrom(0, 1.5, 3),
        async (radii, flat, depthLimit, depthPerPass, cleared) => {
          const points = Float64Array.from(
            radii.flatMap((r, i) => [
              r * Math.cos((2 * Math.PI * i) / radii.length),
              r * Math.sin((2 * Math.PI * i) / radii.length),
            ]),
          );
          const clearedBy = cleared > 0 ? [cleared] : [];
          const found = await walls(
            { loops: [points], rule: 'nonzero' },
            { bit: { ...bit, flat }, depthLimit, depthPerPass, clearedBy },
          );
          expect(found.gouge).toBeLessThan(0.01);
        },
      ),
      { numRuns: 30, seed: 6, endOnFailure: true },
    );
  });
  // Where it bends away from the inside an outline is sampled at some of its vertices only, so curves are tried as well.
  test('random blobs with a blob cut out of them', async () => {
    const wave = fc.record({
      size: fc.double({ min: -0.12, max: 0.12, noNaN: true }),
      phase: fc.double({ min: 0, max: 6, noNaN: true }),
    });
    const blob = (radius: number, waves: readonly { size: number; phase: number }[], turn: 1 | -1) => {
      const count = Math.ceil(Math.PI / Math.acos(1 - 0.003 / radius)) * 4;
      return Float64Array.from(
        Array.from({ length: count }, (_, i) => {
          const a = (turn * 2 * Math.PI * i) / count;
          const r =
            radius * (1 + waves.reduce((sum, { size, phase }, k) => sum + size * Math.sin((k + 2) * a + phase), 0));
          return [r * Math.cos(a), r * Math.sin(a)];
        }).flat(),
      );
    };
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: 2, max: 25, noNaN: true }),
        fc.double({ min: 0.2, max: 0.6, noNaN: true }),
        fc.array(wave, { minLength: 4, maxLength: 4 }),
        fc.array(wave, { minLength: 4, maxLength: 4 }),
        async (radius, share, outer, inner) => {
          const found = await walls({
            loops: [blob(radius, outer, 1), blob(radius * share, inner, -1)],
            rule: 'nonzero',
          });
          expect(found.gouge).toBeLessThan(0.01);
          expect(found.standing999).toBeLessThan(0.02);
        },
      ),
      { numRuns: 40, seed: 5, endOnFailure: true },
    );
  });
});
