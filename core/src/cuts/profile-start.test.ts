import { describe, expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import type { Loops } from '../geometry/clipper.ts';
import { profile, type ProfileSettings } from '../ways/profile.ts';

const settings: ProfileSettings = {
  feed: 1500,
  plunge: 500,
  lift: 5,
  diameter: 6,
  side: 'outside',
  depth: 10,
  depthPerPass: 5,
  climb: true,
  tabs: { count: 0, length: 6, height: 2 },
  thickness: 10,
};
const starts = (area: Loops, change: Partial<ProfileSettings> = {}) =>
  profile(area, { ...settings, ...change }, clipper).starts;
const square = [Float64Array.of(20, 20, 80, 20, 80, 60, 20, 60)];
const disc = [
  Float64Array.from(
    Array.from({ length: 120 }, (_, i) => [
      50 + 20 * Math.cos((i * Math.PI) / 60),
      50 + 20 * Math.sin((i * Math.PI) / 60),
    ]).flat(),
  ),
];
/** 60 × 40 with corners rounded to 10 mm by eight chords each: no vertex turns more than 12°. */
const rounded = () => clipper.offset([Float64Array.of(30, 30, 70, 30, 70, 50, 30, 50)], 10);

describe('where a cut-out starts', () => {
  test('at a sharp corner of the part, the bit beside it by its radius', () => {
    const [{ x, y }] = starts(square);
    expect(Math.hypot(x - 20, y - 20)).toBeCloseTo(3, 2);
    expect(x).toBeLessThan(20);
    expect(y).toBeLessThan(20);
  });
  test('of sharp and blunt corners at the sharpest', () => {
    // The nose at (110, 20) turns by 180° − 2·atan(20/30) = 113°, the back corners by 90°.
    const [{ x, y }] = starts([Float64Array.of(0, 0, 80, 0, 110, 20, 80, 40, 0, 40)]);
    expect(x).toBeCloseTo(113, 2);
    expect(y).toBeCloseTo(20, 2);
  });
  test('without corners in the middle of the longest straight side', () => {
    const [{ x, y }] = starts(rounded());
    expect(x).toBeCloseTo(50, 1);
    expect([17, 63]).toContain(Math.round(y));
  });
  test('a tab in that middle moves it to the middle of what the tab leaves free', () => {
    const long = clipper.offset([Float64Array.of(30, 30, 130, 30, 130, 50, 30, 50)], 10);
    const at = [
      { x: 80, y: 17 },
      { x: 80, y: 63 },
    ];
    const [{ x, y }] = starts(long, { tabs: { ...settings.tabs, at } });
    expect([17, 63]).toContain(Math.round(y));
    // A tab takes its length and the bit, 12 mm in the middle of 100, which leaves 44 on either side.
    expect(Math.abs(x - 80)).toBeCloseTo(6 + 22, 1);
  });
  test('never on a tab, not even at a corner', () => {
    const at = [
      { x: 17, y: 17 },
      { x: 83, y: 17 },
      { x: 83, y: 63 },
    ];
    const [{ x, y }] = starts(square, { tabs: { ...settings.tabs, at } });
    expect(Math.hypot(x - 20, y - 60)).toBeCloseTo(3, 2);
  });
  test('a hole in a part starts at a corner that points into it, or else on a straight side', () => {
    // Seen from the part, the corners of a square hole are inner ones: no place to hide in.
    const [{ x, y }] = starts(square, { side: 'inside' });
    expect(Math.min(x - 20, 80 - x, y - 20, 60 - y)).toBeCloseTo(3, 6);
    expect(x).toBeCloseTo(50, 6);
    // A notch of the hole is a corner of the part.
    const notched = [Float64Array.of(20, 20, 80, 20, 80, 60, 60, 60, 50, 40, 40, 60, 20, 60)];
    const [at] = starts(notched, { side: 'inside' });
    expect(Math.hypot(at.x - 50, at.y - 40)).toBeCloseTo(3, 2);
  });
  test('a disc starts anywhere, on its path', () => {
    const [{ x, y }] = starts(disc);
    expect(Math.hypot(x - 50, y - 50)).toBeCloseTo(23, 1);
  });
  test('a place of one’s own counts, brought onto the path of every loop', () => {
    const two = [...square, Float64Array.of(120, 20, 180, 20, 180, 60, 120, 60)];
    const found = starts(two, { start: [{ x: 100, y: 40 }] });
    expect(found.map(({ x, y }) => [Math.round(x), Math.round(y)]).sort()).toEqual([
      [117, 40],
      [83, 40],
    ]);
  });
  test('of several places each loop takes the one nearest to it', () => {
    const two = [...square, Float64Array.of(120, 20, 180, 20, 180, 60, 120, 60)];
    const chosen = [
      { x: 50, y: 63 },
      { x: 183, y: 40 },
    ];
    const found = starts(two, { start: chosen });
    expect(found.map(({ x, y }) => [Math.round(x), Math.round(y)]).sort()).toEqual([
      [183, 40],
      [50, 63],
    ]);
  });
  test('the path really begins there', () => {
    for (const area of [square, rounded(), disc]) {
      const { path, starts: places } = profile(area, settings, clipper);
      expect([path.xyz[0], path.xyz[1]]).toEqual([places[0].x, places[0].y]);
    }
  });
});

test('no way in or out goes over a tab of the part beside it', () => {
  // Parts 14 mm apart: a bit of 6 mm goes 8 mm from the other's way, and comes in 4 mm from beside its own.
  const parts = [Float64Array.of(0, 0, 40, 0, 40, 40, 0, 40), Float64Array.of(54, 0, 94, 0, 94, 40, 54, 40)];
  const made = (y: number) =>
    profile(parts, { ...settings, lead: { kind: 'arc', length: 4 }, start: [{ x: 51, y: 20 }, { x: -3, y: 20 }], tabs: { ...settings.tabs, at: [{ x: 43, y }] } }, clipper); // prettier-ignore
  expect(made(20)).toMatchObject({ noLead: 1, tabs: [{ y: expect.closeTo(20, 6) }] });
  expect(made(24).noLead).toBe(1);
  // The tab and the bit beside its end: 3 mm of it, 4 mm of the way in, and 6 mm between.
  expect(made(34)).toMatchObject({ noLead: 0, tabs: [{ y: expect.closeTo(34, 6) }] });
});
