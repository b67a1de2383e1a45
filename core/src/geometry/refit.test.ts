import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Clearance } from './clearance.ts';
import { signedArea } from './outline.ts';
import { refitLoop } from './refit.ts';

const around = (n: number, radius: (angle: number) => number) =>
  Float64Array.from(
    Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n;
      return [50 + radius(a) * Math.cos(a), 50 + radius(a) * Math.sin(a)];
    }).flat(),
  );
/** The corners of a shape with wobbling points along its sides, the corners themselves exact. */
function sides(corners: readonly (readonly [number, number])[], each: number, wobble: (k: number) => number) {
  const out: number[] = [];
  corners.forEach(([ax, ay], i) => {
    const [bx, by] = corners[(i + 1) % corners.length];
    const length = Math.hypot(bx - ax, by - ay);
    for (let k = 0; k < each; k++) {
      const off = k === 0 ? 0 : wobble(i * each + k);
      const t = k / each;
      out.push(ax + (bx - ax) * t - ((by - ay) / length) * off, ay + (by - ay) * t + ((bx - ax) / length) * off);
    }
  });
  return Float64Array.from(out);
}
const furthest = (loop: Float64Array, from: Float64Array) => {
  const edge = Clearance.ofLoops([from]);
  let most = 0;
  for (let i = 0; i < loop.length; i += 2) most = Math.max(most, edge.at(loop[i], loop[i + 1]));
  return most;
};
const STAR = Array.from({ length: 10 }, (_, i): [number, number] => {
  const r = i % 2 ? 12 : 30;
  return [50 + r * Math.cos((i * Math.PI) / 5), 50 + r * Math.sin((i * Math.PI) / 5)];
});

describe('outlines refitted with few curves', () => {
  test('a circle takes four curves, as near as four cubic curves come to one', () => {
    const circle = around(1000, () => 20);
    const { loop, nodes, off } = refitLoop(circle, 0.02);
    expect(nodes).toBeLessThanOrEqual(4);
    // A quarter circle by one cubic is off by 2.7·10⁻⁴ of the radius at best (Riškus 2006): 5 µm here.
    expect(off).toBeLessThan(0.02);
    for (let i = 0; i < loop.length; i += 2)
      expect(Math.abs(Math.hypot(loop[i] - 50, loop[i + 1] - 50) - 20)).toBeLessThan(0.02);
  });
  test('a wobbling square becomes four straight sides, its corners where they were', () => {
    const square = sides(
      [
        [10, 10],
        [60, 10],
        [60, 60],
        [10, 60],
      ],
      50,
      (k) => 0.02 * Math.sin(k * 12.9898),
    );
    const { loop, nodes } = refitLoop(square, 0.05);
    expect(nodes).toBe(4);
    expect(Array.from(loop).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([10, 10, 60, 10, 60, 60, 10, 60]);
  });
  test('a wobbling star keeps every point and every notch', () => {
    const { loop, nodes } = refitLoop(
      sides(STAR, 30, (k) => 0.02 * Math.sin(k * 78.233)),
      0.05,
    );
    expect(nodes).toBe(10);
    for (const [x, y] of STAR) {
      let nearest = Infinity;
      for (let i = 0; i < loop.length; i += 2) nearest = Math.min(nearest, Math.hypot(loop[i] - x, loop[i + 1] - y));
      expect(nearest).toBeLessThan(1e-6);
    }
  });
  test('few nodes already, or no tolerance: as drawn', () => {
    const square = Float64Array.of(0, 0, 20, 0, 20, 20, 0, 20);
    expect(refitLoop(square, 0.05)).toEqual({ loop: square, nodes: 4, off: 0 });
    const circle = around(200, () => 20);
    expect(refitLoop(circle, 0).loop).toBe(circle);
    // An ellipse drawn with two arcs is not made better by four curves.
    expect(refitLoop(circle, 0.05, 2)).toEqual({ loop: circle, nodes: 2, off: 0 });
    // A speck smaller than what may be moved.
    const speck = around(12, () => 0.05);
    expect(refitLoop(speck, 0.1).loop).toBe(speck);
  });
  test('any wobbling shape stays within the tolerance both ways, keeps its area, and loses most of its nodes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 4, maxLength: 4 }),
        fc.constantFrom(0.03, 0.05, 0.1),
        fc.nat(1000),
        ([a, b, c, d], tolerance, seed) => {
          let state = seed + 1;
          const random = () => (state = (state * 48271) % 2147483647) / 2147483647 - 0.5;
          const shape = around(
            600,
            (t) =>
              25 +
              5 * a * Math.cos(2 * t) +
              4 * b * Math.sin(3 * t) +
              2 * c * Math.cos(5 * t + d) +
              tolerance * random(),
          );
          const { loop, nodes, off } = refitLoop(shape, tolerance);
          expect(nodes).toBeLessThan(200);
          expect(off).toBeLessThanOrEqual(tolerance);
          expect(furthest(shape, loop)).toBeLessThanOrEqual(tolerance + 1e-9);
          expect(furthest(loop, shape)).toBeLessThanOrEqual(tolerance + 1e-9);
          expect(Math.abs(signedArea(loop) / signedArea(shape) - 1)).toBeLessThan(0.01);
        },
      ),
      { numRuns: 25, seed: 21 },
    );
  });
});
