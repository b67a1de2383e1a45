import { expect, test } from 'vitest';
import type { MedialAxis } from '../../geometry/medial-axis.ts';
import { narrowPlaces } from './narrow-places.ts';

/** An axis along x, by where its nodes are and how far from the wall. */
const along = (
  nodes: readonly (readonly [x: number, r: number])[],
  edges = nodes.slice(1).flatMap((_, k) => [k, k + 1]),
) =>
  ({
    x: Float64Array.from(nodes, ([x]) => x),
    y: new Float64Array(nodes.length),
    r: Float64Array.from(nodes, ([, r]) => r),
    edges: Uint32Array.from(edges),
  }) as unknown as MedialAxis;
const lengthOf = (axis: MedialAxis, flat: number) => {
  const ends = narrowPlaces(axis, flat);
  let sum = 0;
  for (let i = 0; i < ends.length; i += 4) sum += Math.hypot(ends[i] - ends[i + 2], ends[i + 1] - ends[i + 3]);
  return sum;
};

// In a corner of an angle φ the axis is r / sin(φ/2) from its point.
const corner = (degrees: number) => along([[0, 0], [1 / Math.sin((degrees * Math.PI) / 360), 1]]); // prettier-ignore

test.each([
  ['a corner of 90° is rounded', corner(90), 0],
  ['of 40° too', corner(40), 0],
  ['one of 38° stays blank', corner(38), 0.25 / Math.sin((19 * Math.PI) / 180)],
  ['a stub no longer than three radii counts as a corner', along([[0, 0.1], [0.5, 0.1], [0.6, 0.4]]), 0],
  ['a longer one does not', along([[0, 0.1], [0.8, 0.1], [0.9, 0.4]]), 0.85],
  ['a line that is narrow all along', along([[0, 0.1], [20, 0.1], [40, 0.1]]), 40],
  ['a short one as well', along([[0, 0.1], [0.3, 0.1]]), 0.3],
  ['a neck between two wide places, however short', along([[0, 1], [0.9, 0.1], [1.1, 0.1], [2, 1]]), 0.2 + (2 * 0.9 * 0.15) / 0.9],
  ['nothing of what is wide', along([[0, 1], [5, 0.25], [9, 1]]), 0],
])('%s', (_, axis, length) => {
  expect(lengthOf(axis, 0.25)).toBeCloseTo(length, 9);
}); // prettier-ignore

test('a long one with one way out, drawn from many points in any order', () => {
  const n = 60_000;
  const nodes = Array.from({ length: n }, (_, k) => [k / 1000, k === n - 1 ? 1 : 0.1] as const);
  expect(lengthOf(along(nodes), 0.25)).toBeCloseTo((n - 2) / 1000 + 0.001 * (0.15 / 0.9), 6);
  const mixed = Array.from({ length: n - 1 }, (_, k) => (k * 7919) % (n - 1)).flatMap((k) => [k + 1, k]);
  expect(lengthOf(along(nodes, mixed), 0.25)).toBeCloseTo((n - 2) / 1000 + 0.001 * (0.15 / 0.9), 6);
});
