import { expect, test } from 'vitest';
import { clipper } from './clipper-for-tests.ts';
import { signedArea } from './outline.ts';
import { partedLoops } from './parted-loops.ts';

const sorted = (loops: Float64Array[]) => loops.map((loop) => signedArea(loop).toFixed(6)).sort();

/** Two squares and a triangle in one line, touching at (2, 2) and (4, 4); a spike without area on the way. */
const CHAIN = [0, 0, 2, 0, 2, 2, 4, 2, 4, 4, 6, 4, 4, 6, 4, 4, 3, 4, 1, 4, 3, 4, 2, 4, 2, 2, 0, 2];

test('a loop that comes to a point again is parted there, wherever it begins and in either direction', () => {
  const points = Array.from({ length: CHAIN.length / 2 }, (_, k) => [CHAIN[2 * k], CHAIN[2 * k + 1]]);
  for (let first = 0; first < points.length; first++) {
    const begun = [...points.slice(first), ...points.slice(0, first)];
    expect(sorted(partedLoops(Float64Array.from(begun.flat())))).toEqual(['2.000000', '4.000000', '4.000000']);
    expect(sorted(partedLoops(Float64Array.from(begun.toReversed().flat())))).toEqual([
      '-2.000000',
      '-4.000000',
      '-4.000000',
    ]);
  }
});

test('what comes to no point twice stays the very same', () => {
  const loop = Float64Array.of(0, 0, 10, 0, 10, 5, 0, 5);
  expect(partedLoops(loop)).toEqual([loop]);
  expect(partedLoops(loop)[0]).toBe(loop);
});

test('a figure whose line crosses its own corner is united the same, drawn in either direction', () => {
  // A seven whose bar crosses its foot 0.25 mm below the corner.
  const seven = [23.4, 6.4, 34.7, 6.4, 26.6, 24.7, 25.9, 24.7, 33.967, 6.709, 34.3, 6.961, 23.4, 6.961];
  const points = Array.from({ length: seven.length / 2 }, (_, k) => [seven[2 * k], seven[2 * k + 1]]);
  const [there, back] = [points, points.toReversed()].map((p) =>
    clipper.union([Float64Array.from(p.flat())], 'evenodd'),
  );
  expect(there.length).toBe(2);
  expect(sorted(back)).toEqual(sorted(there));
});
