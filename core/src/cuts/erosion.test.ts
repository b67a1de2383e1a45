import { describe, expect, test } from 'vitest';
import { Clearance } from '../geometry/clearance.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import type { Loops } from '../geometry/clipper.ts';
import { signedArea } from '../geometry/outline.ts';
import { carvablesOf, type Carvable } from '../ways/carvable.ts';
import { eroded } from '../ways/erosion.ts';

const areaOf = (loops: Loops) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);
async function carvable(...loops: Float64Array[]): Promise<Carvable> {
  const outlines = loops.map((points) => ({ points, closed: true }));
  const { regions } = await carvablesOf([{ name: 'shape', rule: 'evenodd', outlines }], clipper);
  return regions[0];
}

describe('a region shrunk in two steps', () => {
  test('a rectangle: (a − 2d)(b − 2d), whatever was asked before', async () => {
    const shape = await carvable(Float64Array.of(0, 0, 60, 0, 60, 30, 0, 30));
    for (const d of [1, 7.3, 2.4, 14.9, 7.3, 5.0001, 12.5, 0.01]) {
      const loops = eroded(shape, d, clipper);
      expect(areaOf(loops)).toBeCloseTo((60 - 2 * d) * (30 - 2 * d), 2);
    }
    expect(eroded(shape, 15.1, clipper)).toEqual([]);
  });
  test('every point keeps its distance from a wavy wall with an island, to the rounding of joins', async () => {
    const wave = Float64Array.from(
      Array.from({ length: 160 }, (_, i) => {
        const a = (2 * Math.PI * i) / 160;
        const r = 30 + 6 * Math.cos(5 * a);
        return [r * Math.cos(a), r * Math.sin(a)];
      }).flat(),
    );
    const island = Float64Array.of(-5, -5, -5, 5, 5, 5, 5, -5);
    const shape = await carvable(wave, island);
    const edge = Clearance.ofLoops(shape.region.loops);
    for (const d of [0.5, 3.3, 6.1, 8.8]) {
      const loops = eroded(shape, d, clipper);
      expect(loops.length).toBeGreaterThan(0);
      for (const loop of loops)
        for (let i = 0; i < loop.length; i += 2)
          expect(Math.abs(edge.at(loop[i], loop[i + 1]) - d)).toBeLessThan(0.006);
    }
  });
  test('one step or two come to the same area', async () => {
    const shape = await carvable(Float64Array.of(0, 0, 80, 0, 80, 20, 30, 20, 30, 70, 0, 70));
    for (const d of [1.1, 4.4, 7.7, 9.2, 11])
      expect(areaOf(eroded(shape, d, clipper))).toBeCloseTo(areaOf(clipper.offset(shape.region.loops, -d)), 1);
  });
});
