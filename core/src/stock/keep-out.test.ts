import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { distanceToKeepOut, heightOverAll } from './keep-out.ts';
import type { Obstacle } from './obstacles.ts';

const clamp: Obstacle = { id: 'clamp-1', kind: 'clamp', x: 40, y: 30, length: 20, width: 10, height: 8 };

describe('distance from a move to a keep-out', () => {
  test.each([
    ['past its lower side', [0, 20, 100, 20], 10],
    ['past its corner, aslant: 10/√2', [0, 60, 60, 0], 10 / Math.SQRT2],
    ['ending before it', [0, 35, 30, 35], 10],
    ['ending off its corner, 3 and 4 mm away', [0, 0, 37, 26], 5],
    ['over it', [0, 35, 100, 35], 0],
    ['starting on it', [50, 35, 200, 200], 0],
    ['no move at all, beside it', [70, 35, 70, 35], 10],
    ['straight up its right side', [61, 0, 61, 100], 1],
  ] as const)('%s', (_, [ax, ay, bx, by], distance) => {
    expect(distanceToKeepOut(ax, ay, bx, by, clamp)).toBeCloseTo(distance, 9);
  });
  test('it is the least distance of all places of the move, whichever way it is gone', () => {
    const place = fc.tuple(fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: 0, max: 80, noNaN: true }));
    fc.assert(
      fc.property(place, place, ([ax, ay], [bx, by]) => {
        const found = distanceToKeepOut(ax, ay, bx, by, clamp);
        expect(distanceToKeepOut(bx, by, ax, ay, clamp)).toBeCloseTo(found, 9);
        let least = Infinity;
        for (let k = 0; k <= 400; k++) {
          const [x, y] = [ax + ((bx - ax) * k) / 400, ay + ((by - ay) * k) / 400];
          least = Math.min(least, Math.hypot(Math.max(40 - x, 0, x - 60), Math.max(30 - y, 0, y - 40)));
        }
        // Looked at every quarter of a millimetre at most.
        expect(found).toBeLessThanOrEqual(least + 1e-9);
        expect(least - found).toBeLessThan(0.2);
      }),
      { numRuns: 200, seed: 3 },
    );
  });
});

test('the height over everything is the lift, or 2 mm over the highest', () => {
  expect(heightOverAll([], 5)).toBe(5);
  expect(heightOverAll([clamp], 5)).toBe(10);
  expect(heightOverAll([clamp, { ...clamp, height: 14 }], 5)).toBe(16);
  expect(heightOverAll([clamp], 30)).toBe(30);
});
