import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { inlayFit } from '../core/src/cuts/inlay/inlay-fit.ts';
import { pocket, type PocketSettings } from '../core/src/ways/pocket.ts';
import { profile, type ProfileSettings } from '../core/src/ways/profile.ts';
import type { Clipper } from '../core/src/geometry/clipper.ts';
import type { Path } from '../core/src/motion/path.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { areaOf, buffered, cutLines, difference, distanceToLoops, swept } from './reference.ts';

let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});

const drive = { feed: 1500, plunge: 600, lift: 5 };
const pocketing: PocketSettings = {
  ...drive,
  diameter: 3,
  depth: 4,
  depthPerPass: 2,
  step: 1.2,
  pattern: 'rings',
  angle: 0,
  climb: true,
  finish: 0,
  entry: { kind: 'ramp', angle: Math.PI / 36 },
};
const cutting: ProfileSettings = {
  ...drive,
  diameter: 3,
  side: 'outside',
  depth: 6,
  depthPerPass: 3,
  climb: true,
  tabs: { count: 0, length: 6, height: 1.5 },
  thickness: 6,
};
const starOf = (radii: readonly number[]) =>
  Float64Array.from(
    radii.flatMap((r, i) => [
      50 + r * Math.cos((2 * Math.PI * i) / radii.length),
      50 + r * Math.sin((2 * Math.PI * i) / radii.length),
    ]),
  );
const stars = fc.array(fc.double({ min: 8, max: 22, noNaN: true }), { minLength: 5, maxLength: 12 }).map(starOf);
const island = Float64Array.of(47, 47, 47, 53, 53, 53, 53, 47);

function lowPoints({ xyz, feed }: Path): [number, number][] {
  return Array.from(feed, (_, i) => i)
    .filter((i) => xyz[3 * i + 2] < 0)
    .map((i) => [xyz[3 * i], xyz[3 * i + 1]]);
}

// Reference: JSTS (distances, buffers, overlays). 10 µm is what the issue of the engine allows.
describe('pockets against a second geometry library', () => {
  const kinds: [string, Partial<PocketSettings>][] = [
    ['rings', {}],
    ['rings further apart than the radius', { step: 1.9 }],
    ['lines at 30°', { pattern: 'lines', angle: Math.PI / 6 }],
    [
      'conventional, by a helix, with a last round',
      { climb: false, entry: { kind: 'helix', angle: 0.1 }, finish: 0.3 },
    ],
    ['after a bit of 6 mm', { clearedBy: [3] }],
  ];
  test.each(kinds)('%s: the bit keeps its radius from the outline and misses nothing it can reach', (_, change) => {
    fc.assert(
      fc.property(stars, (star) => {
        const area = clipper.union([star, island], 'evenodd');
        const settings = { ...pocketing, ...change };
        const { path } = pocket(area, settings, clipper);
        if (settings.clearedBy && path.feed.length === 0) return;
        const whole = areaOf(star, [island]);
        expect(distanceToLoops(path, [star, island])).toBeGreaterThan(1.5 - 0.01);
        let reachable = buffered(buffered(whole, -1.5), 1.5);
        if (settings.clearedBy) reachable = difference(reachable, buffered(buffered(buffered(whole, -3), 3), 0.02));
        const missed = buffered(difference(reachable, swept(cutLines(path, -3.9), 1.5)), -0.01);
        expect(missed.getArea()).toBeLessThan(0.02);
      }),
      { numRuns: 4, seed: 5, endOnFailure: true },
    );
  });
  test('a rectangle’s corners keep the bit’s radius: four times r²(1 − π/4) stay', () => {
    const { left } = pocket([Float64Array.of(0, 0, 40, 0, 40, 20, 0, 20)], pocketing, clipper);
    expect(left).toBeCloseTo(4 * 1.5 ** 2 * (1 - Math.PI / 4), 1);
  });
  test('it is cut in even depths, and never below', () => {
    const { path, passes } = pocket([Float64Array.of(0, 0, 40, 0, 40, 20, 0, 20)], { ...pocketing, depth: 5 }, clipper);
    expect(passes).toBe(3);
    const heights = path.xyz.filter((_, i) => i % 3 === 2);
    expect(Math.min(...heights)).toBeCloseTo(-5, 9);
  });
  test('a ramp goes down no steeper than asked', () => {
    const { path } = pocket([Float64Array.of(0, 0, 40, 0, 40, 20, 0, 20)], pocketing, clipper);
    for (let i = 1; i < path.feed.length; i++) {
      const [dx, dy, dz] = [0, 1, 2].map((k) => path.xyz[3 * i + k] - path.xyz[3 * i - 3 + k]);
      if (path.feed[i] > 0 && dz < 0 && path.xyz[3 * i - 1] < -1e-9)
        expect(-dz / Math.hypot(dx, dy)).toBeLessThan(Math.tan(Math.PI / 36) + 1e-9);
    }
  });
});

describe('profiles against a second geometry library', () => {
  const hole = Float64Array.of(46, 46, 46, 54, 54, 54, 54, 46);
  const kinds: [string, Partial<ProfileSettings>][] = [
    ['outside', {}],
    ['inside', { side: 'inside' }],
    ['outside with tabs, a ramp and an overlap', { tabs: { count: 3, length: 5, height: 2 }, ramp: 0.08, overlap: 4 }],
    ['outside with arcs to come in by', { lead: { kind: 'arc', length: 2 } }],
    [
      'inside with lines to come in by and a last round',
      { side: 'inside', lead: { kind: 'line', length: 1 }, finish: 0.2 },
    ],
    [
      'outside, conventional, with ramped tabs',
      { climb: false, tabs: { count: 4, length: 4, height: 2, shape: 'ramped' } },
    ],
  ];
  test.each(kinds)('%s: no nearer than the radius, and along it all round', (_, change) => {
    fc.assert(
      fc.property(stars, (star) => {
        const area = clipper.union([star, hole], 'evenodd');
        const settings = { ...cutting, ...change };
        const { path } = profile(area, settings, clipper);
        const whole = areaOf(star, [hole]);
        const out = settings.side === 'outside';
        expect(distanceToLoops(path, [star, hole])).toBeGreaterThan(1.5 - 0.01);
        // Offset accuracy: where the bit passes at full depth, nothing stands between it and the finished edge.
        if (settings.tabs.count > 0) return;
        const edge = out ? buffered(buffered(whole, 1.5), -1.5) : buffered(buffered(whole, -1.5), 1.5);
        const band = out
          ? difference(buffered(edge, 1), buffered(edge, 0.01))
          : difference(buffered(edge, -0.01), buffered(edge, -1));
        expect(buffered(difference(band, swept(cutLines(path, -5.9), 1.5)), -0.005).getArea()).toBeLessThan(0.01);
      }),
      { numRuns: 5, seed: 9, endOnFailure: true },
    );
  });
  test('offsets are exact to 5 µm: a circle and a square', () => {
    const round = Float64Array.from(
      Array.from({ length: 2000 }, (_, i) => [
        50 + 20 * Math.cos((i * Math.PI) / 1000),
        50 + 20 * Math.sin((i * Math.PI) / 1000),
      ]).flat(),
    );
    for (const [x, y] of lowPoints(profile([round], cutting, clipper).path))
      expect(Math.abs(Math.hypot(x - 50, y - 50) - 21.5)).toBeLessThan(0.005);
    const square = Float64Array.of(10, 10, 50, 10, 50, 50, 10, 50);
    for (const [x, y] of lowPoints(profile([square], { ...cutting, side: 'inside' }, clipper).path)) {
      const inset = Math.min(x - 10, 50 - x, y - 10, 50 - y);
      expect(Math.abs(inset - 1.5)).toBeLessThan(0.005);
    }
  });
});

describe('straight inlays', () => {
  test('part and recess of a random shape fit everywhere within the allowance, with corners both bits can make', () => {
    fc.assert(
      fc.property(stars, fc.double({ min: -0.3, max: 0.3, noNaN: true }), (star, allowance) => {
        const { recess, part, gap } = inlayFit(clipper.union([star], 'nonzero'), 1.5, allowance, clipper);
        expect(gap.least).toBeGreaterThan(allowance - 0.006);
        expect(gap.most).toBeLessThan(allowance + 0.006);
        for (const loops of [recess, part])
          for (const loop of loops) {
            // A bit of the radius reaches all of it from inside, and all round it from outside.
            const shape = areaOf(loop);
            expect(difference(shape, buffered(buffered(shape, -1.495), 1.5)).getArea()).toBeLessThan(0.02);
            expect(difference(buffered(buffered(shape, 1.495), -1.5), shape).getArea()).toBeLessThan(0.02);
          }
      }),
      { numRuns: 8, seed: 11, endOnFailure: true },
    );
  });
  test('of a circle both are circles, the part smaller by the allowance', () => {
    const round = Float64Array.from(
      Array.from({ length: 720 }, (_, i) => [
        10 * Math.cos((i * Math.PI) / 360),
        10 * Math.sin((i * Math.PI) / 360),
      ]).flat(),
    );
    const { recess, part } = inlayFit([round], 1.5, 0.0625, clipper);
    for (let i = 0; i < recess[0].length; i += 2)
      expect(Math.hypot(recess[0][i], recess[0][i + 1])).toBeCloseTo(10.03125, 2);
    for (let i = 0; i < part[0].length; i += 2) expect(Math.hypot(part[0][i], part[0][i + 1])).toBeCloseTo(9.96875, 2);
  });
  test('pressed in tightly (common practice): part and recess both led 1.65 mm beside the outline by a bit of 1.5875 mm', () => {
    const square = Float64Array.of(0, 0, 60, 0, 60, 60, 0, 60);
    const { recess, part, gap } = inlayFit([square], 1.5875, -0.125, clipper);
    const furthest = (loops: readonly Float64Array[]) => Math.max(...loops.flatMap((loop) => [...loop]));
    expect(furthest(clipper.offset(recess, -1.5875))).toBeCloseTo(60 - 1.65, 3);
    expect(furthest(clipper.offset(part, 1.5875))).toBeCloseTo(60 + 1.65, 3);
    expect([gap.least, gap.most].map((g) => Math.round(g * 1000) / 1000)).toEqual([-0.125, -0.125]);
  });
});
