import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Leaves } from '../tools/leaves.ts';
import type { Profile } from '../tools/turned.ts';
import { pathAlong } from '../motion/path.ts';
import { carveField } from './height-field.ts';
import { CarvedMoves } from './section.ts';
import { sweptHeight } from './swept.ts';

const V60: Profile = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 6 };
const BITS: Record<string, Profile> = {
  'a 60° bit': V60,
  'a 90° bit that is buried past its edges': { flat: 0, slope: 1, radius: 1.5 },
  'an engraving cutter with a flat': { flat: 0.5, slope: 0.4, radius: 3 },
  'an end mill': { flat: 3, slope: 0, radius: 3 },
};
const groove = (profile: Profile): Leaves => ({ kind: 'groove', profile });
const move = (...xyz: number[]) => pathAlong(Float64Array.from(xyz), 100);

describe('the carved piece as a height field', () => {
  test('a level groove: depth at its middle, walls at the bit’s angle, width 2·d·tan α', () => {
    const { heights, columns } = carveField([{ path: move(5, 10, -3, 35, 10, -3), leaves: groove(V60) }], 40, 20, 0.1);
    const at = (x: number, y: number) => heights[Math.floor(y / 0.1) * columns + Math.floor(x / 0.1)];
    expect(at(20.05, 10.05)).toBeCloseTo(-3 + 0.05 / V60.slope, 4);
    expect(at(20.05, 11.05)).toBeCloseTo(-3 + 1.05 / V60.slope, 4);
    // 3·tan 30° = 1.73 mm to each side.
    expect(at(20.05, 10 + 1.65)).toBeLessThan(0);
    expect(at(20.05, 10 + 1.85)).toBe(0);
    expect(at(38.05, 10.05)).toBe(0);
  });
  test('an end mill leaves a flat floor with round ends', () => {
    const { heights } = carveField(
      [{ path: move(10, 10, -2, 30, 10, -2), leaves: groove(BITS['an end mill']) }],
      40,
      20,
      0.1,
    );
    const cut = heights.filter((h) => h < 0);
    expect(new Set(cut)).toEqual(new Set([-2]));
    // 20 × 6 and a disc of 6 mm, counted in hundredths of a square millimetre.
    expect(cut.length / 100).toBeCloseTo(20 * 6 + Math.PI * 9, 0);
  });
  test('a move above the stock, and one beside it, cut nothing', () => {
    for (const path of [move(5, 5, 1, 15, 5, 1), move(-50, 5, -3, -20, 5, -3)])
      expect(carveField([{ path, leaves: groove(V60) }], 20, 10, 0.5).heights.every((h) => h === 0)).toBe(true);
  });
  test.each(Object.entries(BITS))('%s: every cell has the height that the swept bit has there', (_, profile) => {
    const place = fc.tuple(
      fc.double({ min: -2, max: 22, noNaN: true }),
      fc.double({ min: -2, max: 22, noNaN: true }),
      fc.double({ min: -5, max: 1, noNaN: true }),
    );
    fc.assert(
      fc.property(place, place, fc.boolean(), ([ax, ay, az], [bx, by, bz], level) => {
        const z = level ? az : bz;
        const { heights, columns } = carveField(
          [{ path: move(ax, ay, az, bx, by, z), leaves: groove(profile) }],
          20,
          20,
          0.5,
        );
        heights.forEach((h, k) => {
          const [x, y] = [((k % columns) + 0.5) / 2, (Math.floor(k / columns) + 0.5) / 2];
          // Heights are kept as 32-bit numbers.
          expect(h).toBeCloseTo(Math.min(0, sweptHeight(profile, ax, ay, az, bx, by, z, x, y)), 5);
        });
      }),
      { numRuns: 60, seed: 6 },
    );
  });
  test('what leaves a mark or nothing takes nothing away, and a kerf has upright walls', () => {
    const path = move(5, 10, -2, 35, 10, -2);
    const none: Leaves[] = [{ kind: 'mark', width: 0.3 }, { kind: 'burn', spot: 0.2 }, { kind: 'nothing' }];
    for (const leaves of none) {
      expect(carveField([{ path, leaves }], 40, 20, 0.5).heights.every((h) => h === 0)).toBe(true);
      expect(new CarvedMoves([{ path, leaves }]).along(20, 0, 20, 20, 41).every((h) => h === 0)).toBe(true);
    }
    const kerf = new CarvedMoves([{ path, leaves: { kind: 'kerf', width: 1.5, depth: 2 } }]).along(20, 0, 20, 20, 201);
    expect(kerf.filter((h) => h === -2)).toHaveLength(15);
    expect(kerf.filter((h) => h < 0)).toHaveLength(15);
  });
  test('a section through it shows the same heights', () => {
    const cuts = [
      { path: move(5, 5, -2, 30, 14, -4, 12, 18, -1), leaves: groove(V60) },
      { path: move(8, 16, -1.5, 30, 3, -1.5), leaves: groove(BITS['an end mill']) },
    ];
    const { heights, columns } = carveField(cuts, 40, 20, 0.25);
    const along = new CarvedMoves(cuts).along(0.125, 10.125, 39.875, 10.125, 160);
    along.forEach((h, i) => expect(h).toBeCloseTo(heights[40 * columns + i], 5));
  });
});
