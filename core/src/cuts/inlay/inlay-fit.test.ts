import { expect, test } from 'vitest';
import { clipper } from '../../geometry/clipper-for-tests.ts';
import { ringLevels } from '../../ways/ring-levels.ts';
import { inlayFit } from './inlay-fit.ts';

/** Turned, so that no coordinate is round. */
const [cos, sin] = [Math.cos(0.6), Math.sin(0.6)];
const loop = (...points: number[]) =>
  Float64Array.from(points, (v, i) => (i % 2 ? points[i - 1] * sin + v * cos : v * cos - points[i + 1] * sin));

test.each([-0.243, 0, 0.06])(
  'with a fit of %f mm a stroke as wide as the bit is in both halves, or in none',
  (allowance) => {
    const radius = 0.8895;
    const rounder = radius + Math.abs(allowance) / 2;
    for (let micrometres = -6; micrometres <= 6; micrometres += 0.25) {
      const half = rounder + micrometres / 2000;
      // Two plates of 12 mm, and a bar between them.
      const area = clipper.union(
        [
          loop(0, 0, 12, 0, 12, 12, 0, 12),
          loop(30, 0, 42, 0, 42, 12, 30, 12),
          loop(11, 6 - half, 31, 6 - half, 31, 6 + half, 11, 6 + half),
        ],
        'nonzero',
      );
      const { recess, part, pinched } = inlayFit(area, radius, allowance, clipper);
      const ways = ringLevels(recess, radius, 1, clipper)[0];
      expect([ways.length, pinched]).toEqual([part.length, 0]);
    }
  },
);

test.each([
  [0.002, 0],
  [0.014, 2],
  [0.05, 2],
])('a neck between two discs of which the bit leaves %f mm on each side: told %i times', (left, told) => {
  const [radius, allowance, disc] = [1, 0.06, 5];
  const rounder = radius + allowance / 2;
  // Closed by rounds of the bit, two discs have a neck; where it is narrower than the bit by δ on each side, the bit
  // leaves about as much at its narrowest.
  const half = rounder - left;
  const apart = Math.sqrt((disc + rounder) ** 2 - (half + rounder) ** 2);
  const round = (x: number) =>
    loop(
      ...Array.from({ length: 2000 }, (_, i) => i >> 1).map((k, i) =>
        i % 2 ? disc * Math.sin((k * Math.PI) / 500) : x + disc * Math.cos((k * Math.PI) / 500),
      ),
    );
  const area = clipper.union([round(-apart), round(apart)], 'nonzero');
  expect(inlayFit(area, radius, allowance, clipper).pinched).toBe(told);
});
