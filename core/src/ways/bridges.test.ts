import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { insideArea } from '../geometry/stretches.ts';
import { bridged } from './bridges.ts';

/** A frame 60 mm wide and 40 mm high whose walls slant, round an island with slanting edges. */
const area = [Float64Array.of(0, 0, 60, 6, 60, 46, 0, 40), Float64Array.of(20, 15, 20, 25, 40, 29, 40, 19)];

test('an island hangs on two bars, up and down from its middle, as wide as asked and into both walls', () => {
  const stays = bridged(area, 4, clipper);
  // At x = 30 the walls are at 3 and 43, the island’s edges at 17 and 27.
  for (const [x, y, cut] of [
    [30, 3.1, false],
    [30, 10, false],
    [30, 35, false],
    [30, 42.9, false],
    [28.1, 10, false],
    [31.9, 35, false],
    [27.9, 10, true],
    [32.1, 35, true],
    [10, 20, true],
    [50, 25, true],
    [30, 22, false],
  ] as const)
    expect(insideArea(stays, x, y), `${x}, ${y}`).toBe(cut);
});

test('without an island nothing changes', () => {
  expect(bridged([area[0]], 4, clipper)).toEqual([area[0]]);
});

test('an island in an island’s ring hangs on its own walls', () => {
  const box = (h: number, hole: boolean) => hole ? Float64Array.of(-h, -h, -h, h, h, h, h, -h) : Float64Array.of(-h, -h, h, -h, h, h, -h, h); // prettier-ignore
  const stays = bridged([box(50, false), box(40, true), box(30, false), box(10, true)], 4, clipper);
  for (const y of [45, -45, 20, -20]) expect(insideArea(stays, 0, y), `bar at ${y}`).toBe(false);
  for (const y of [45, -45, 20, -20]) expect(insideArea(stays, 5, y), `beside ${y}`).toBe(true);
});
