import fc from 'fast-check';
import { expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import type { CutResult } from './cut-result.ts';
import { overEarlier } from './over-earlier.ts';

// Promised: after the first cut that frees something, no link goes lower than the highest that any cut so far wants, and what
// is cut stays as it was.

const bench = {
  limits: { speed: { x: 9000, y: 7000, z: 3000 }, acceleration: { x: 900, y: 700, z: 500 }, cornerStep: 300 },
};

/** Strokes of 20 mm from places on the sheet, with links at a height between them. */
function cut(places: readonly (readonly [number, number])[], approach: number | undefined, rise: number): CutResult {
  const rows = places.flatMap(([x, y]) => [
    [x, y, rise, 0],
    [x, y, 1.5, 700],
    [x + 20, y + 7, 1.5, 2100],
    [x + 20, y + 7, rise, 0],
  ]);
  const path = pathForTests(
    rows.flatMap(([x, y, z]) => [x, y, z]),
    rows.map(([, , , f]) => f),
  );
  return { path, approach, minutes: 0 } as CutResult;
}

/** Rows of what is cut, and the least height of links across, from the first point on. */
function looked({ path: { xyz, feed } }: CutResult) {
  const at = (i: number) => [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]];
  const burnt: number[][] = [];
  let lowest = Infinity;
  for (let i = 0; i < feed.length; i++) {
    if (feed[i] > 0) burnt.push([...at(i), feed[i]]);
    else if (i > 0 && (at(i)[0] !== at(i - 1)[0] || at(i)[1] !== at(i - 1)[1]))
      lowest = Math.min(lowest, at(i)[2], at(i - 1)[2]);
  }
  return { burnt, lowest };
}

const place = fc.tuple(fc.double({ min: 0, max: 900, noNaN: true }), fc.double({ min: 0, max: 500, noNaN: true }));
const cutBy = fc.record({
  places: fc.array(place, { minLength: 0, maxLength: 4 }),
  approach: fc.option(fc.double({ min: 12, max: 60, noNaN: true }), { nil: undefined }),
  rise: fc.double({ min: 4, max: 10, noNaN: true }),
});

test('cuts of any heights in any order', () => {
  fc.assert(
    fc.property(fc.array(cutBy, { minLength: 2, maxLength: 5 }), (wanted) => {
      const cuts = wanted.map(({ places, approach, rise }) => cut(places, approach, rise));
      const found = overEarlier(cuts, bench, {});
      let high = 0;
      found.forEach((now, k) => {
        const { approach, places } = wanted[k];
        expect(looked(now).burnt).toEqual(looked(cuts[k]).burnt);
        if (approach === undefined || places.length === 0) return expect(now).toBe(cuts[k]);
        const first = high === 0;
        high = Math.max(high, approach);
        if (first) return expect(now).toBe(cuts[k]);
        expect(now.approach).toBe(high);
        expect(looked(now).lowest).toBeGreaterThanOrEqual(high);
        expect(now.minutes).toBeGreaterThan(0);
      });
    }),
    { numRuns: 150, seed: 31 },
  );
});

test('a high one, a low one and a middle one: both after it go as high as the first', () => {
  const strokes = [
    [10, 20],
    [300, 40],
    [35, 410],
  ] as const;
  const found = overEarlier([cut(strokes, 45, 6), cut(strokes, 15, 6), cut(strokes, 30, 6)], bench, {});
  expect(found.map((now) => looked(now).lowest)).toEqual([6, 45, 45]);
});
