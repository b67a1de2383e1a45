import fc from 'fast-check';
import { Clearance } from './clearance.ts';
import { describe, expect, test } from 'vitest';
import { type MedialAxis, medialAxis } from './medial-axis.ts';
import { boundsOf } from './outline.ts';

const region = (...points: number[]) => {
  const loop = Float64Array.from(points);
  return { loops: [loop], bounds: boundsOf([{ points: loop }])! };
};
const around = (n: number, rx: number, ry: number) =>
  Array.from({ length: n }, (_, i) => [
    Math.cos((2 * Math.PI * i) / n) * rx,
    Math.sin((2 * Math.PI * i) / n) * ry,
  ]).flat();
const length = ({ x, y, edges }: MedialAxis) => {
  let total = 0;
  for (let e = 0; e < edges.length; e += 2)
    total += Math.hypot(x[edges[e]] - x[edges[e + 1]], y[edges[e]] - y[edges[e + 1]]);
  return total;
};
const used = ({ edges }: MedialAxis) => [...new Set(edges)];

// Closed forms follow from Blum's definition (1967): centres of circles that touch the outline twice or more.
describe('closed forms', () => {
  test('a rectangle: a middle line and four diagonals', () => {
    const axis = medialAxis(region(0, 0, 10, 0, 10, 4, 0, 4));
    expect(length(axis)).toBeCloseTo(6 + 4 * Math.hypot(2, 2), 3);
    for (const n of used(axis)) {
      const ideal = Math.min(axis.x[n], 10 - axis.x[n], axis.y[n], 4 - axis.y[n]);
      expect(axis.r[n]).toBeCloseTo(ideal, 6);
    }
    expect(Math.max(...used(axis).map((n) => axis.r[n]))).toBeCloseTo(2, 5);
  });
  test('a circle: its centre', () => {
    const axis = medialAxis(region(...around(400, 10, 10)));
    expect(used(axis)).toHaveLength(1);
    const [n] = used(axis);
    expect(Math.hypot(axis.x[n], axis.y[n])).toBeLessThan(0.01);
    expect(axis.r[n]).toBeCloseTo(10, 2);
  });
  test('an ellipse: the segment between the centres of curvature of its ends, ±(a² − b²)/a', () => {
    const axis = medialAxis(region(...around(1200, 20, 10)));
    const reach = (400 - 100) / 20;
    const xs = used(axis).map((n) => axis.x[n]);
    expect(Math.max(...xs)).toBeLessThan(reach + 0.05);
    expect(Math.max(...xs)).toBeGreaterThan(reach - 0.5);
    for (const n of used(axis)) {
      expect(Math.abs(axis.y[n])).toBeLessThan(0.01);
      // Radius of the bitangent circle at (x, 0): b·√(1 − x²/(a² − b²)).
      expect(axis.r[n]).toBeCloseTo(10 * Math.sqrt(Math.max(0, 1 - axis.x[n] ** 2 / 300)), 2);
    }
  });
  test('an L: the largest circle touches both outer sides and the inner corner', () => {
    const axis = medialAxis(region(0, 0, 20, 0, 20, 4, 4, 4, 4, 20, 0, 20));
    const r = (4 * Math.SQRT2) / (1 + Math.SQRT2);
    expect(Math.max(...used(axis).map((n) => axis.r[n]))).toBeCloseTo(r, 2);
  });
});

test('between any two nodes no disc reaches over the outline by 10 µm, on random stars', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 3, max: 20, noNaN: true }), { minLength: 5, maxLength: 24 }), (radii) => {
      const points = radii.flatMap((r, i) => {
        const angle = (2 * Math.PI * i) / radii.length;
        return [r * Math.cos(angle), r * Math.sin(angle)];
      });
      const axis = medialAxis(region(...points));
      for (let e = 0; e < axis.edges.length; e += 2) {
        const [a, b] = [axis.edges[e], axis.edges[e + 1]];
        for (const t of [0, 0.3, 0.5, 0.8, 1]) {
          const free = axis.clearance.at(
            axis.x[a] + t * (axis.x[b] - axis.x[a]),
            axis.y[a] + t * (axis.y[b] - axis.y[a]),
          );
          expect(axis.r[a] + t * (axis.r[b] - axis.r[a])).toBeLessThan(free + 0.01);
        }
      }
    }),
    { numRuns: 30, seed: 7 },
  );
});

test.each([
  // A slit 7.5 µm wide and 9 mm deep; and where a sliver meets a disc, corners a hundredth of a micrometre apart.
  [
    'a slit',
    [
      5.5477, 10.4264, 5.5552, 10.4264, 5.5552, 1.2469, 6.8322, 1.2469, 6.8322, 14.3604, 1.247, 14.3604, 1.247, 1.2469,
      5.5477, 1.2469,
    ],
  ],
  ['corners in one place', [0, 0, 9, 0, 9, 6, 5.000017, 6, 5, 6.000018, 4.81, 5.2, 4.9998, 6, 0, 6]],
])('%s: its axis is found, and keeps within it', (_, points) => {
  const axis = medialAxis(region(...points));
  expect(axis.edges.length).toBeGreaterThan(2);
  const outline = Clearance.ofLoops([Float64Array.from(points)]);
  for (const n of used(axis)) expect(axis.r[n]).toBeLessThan(outline.at(axis.x[n], axis.y[n]) + 0.0125);
});
