import { expect, test } from 'vitest';
import { refitShapes } from './refit-shapes.ts';
import type { Shape } from './shape.ts';

const points = Float64Array.from({ length: 400 }, (_, i) => {
  const turn = (Math.PI * (i >> 1)) / 100;
  return 30 * (i % 2 ? Math.sin(turn) : Math.cos(turn));
});
const shapes = [
  {
    outlines: [
      { points, closed: true },
      { points, closed: false },
    ],
  },
] as unknown as Shape[];

test('nothing is drawn anew within nothing, only counted', () => {
  const { shapes: made, nodes } = refitShapes(shapes, 0);
  expect(made[0].outlines[0]).toBe(shapes[0].outlines[0]);
  expect(nodes).toEqual({ drawn: 400, now: 400, off: 0 });
});

test('what is closed has fewer nodes within a twentieth, and lies no further off; open lines stay', () => {
  const { shapes: made, nodes } = refitShapes(shapes, 0.05);
  expect(made[0].outlines[1]).toBe(shapes[0].outlines[1]);
  expect(nodes.now).toBeLessThan(240);
  expect(nodes.off).toBeLessThanOrEqual(0.05);
});
