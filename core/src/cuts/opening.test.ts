import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { engagementOf } from '../carving/engagement.ts';
import { Clearance } from '../geometry/clearance.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import type { Loops } from '../geometry/clipper.ts';
import { insideArea } from '../geometry/stretches.ts';
import type { Limits } from '../document/limits.ts';
import { planMotion } from '../motion/plan.ts';
import { openingAlong } from '../ways/opening.ts';
import { pocket, type PocketSettings } from '../ways/pocket.ts';

const limits: Limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 300,
};
const settings: PocketSettings = {
  feed: 1500,
  plunge: 600,
  lift: 5,
  diameter: 6,
  depth: 3,
  depthPerPass: 3,
  step: 2.4,
  pattern: 'rings',
  angle: 0,
  climb: true,
  finish: 0,
  entry: { kind: 'ramp', angle: (5 * Math.PI) / 180 },
  limits,
};
const circle = (x: number, y: number, r: number) =>
  Float64Array.from(
    Array.from({ length: 200 }, (_, i) => [
      x + r * Math.cos((i * Math.PI) / 100),
      y + r * Math.sin((i * Math.PI) / 100),
    ]).flat(),
  );
const SHAPES: Record<string, Loops> = {
  'a rectangle of 100 × 20': [Float64Array.of(0, 0, 100, 0, 100, 20, 0, 20)],
  'an L with arms 20 wide': [Float64Array.of(0, 0, 80, 0, 80, 20, 20, 20, 20, 60, 0, 60)],
  'a square of 40': [Float64Array.of(0, 0, 40, 0, 40, 40, 0, 40)],
  'a disc of 50': [circle(50, 50, 25)],
  'a T': [Float64Array.of(0, 0, 90, 0, 90, 18, 54, 18, 54, 70, 36, 70, 36, 18, 0, 18)],
};

describe('no slot as wide as the bit where loops avoid it', () => {
  for (const [name, area] of Object.entries(SHAPES))
    for (const climb of [true, false])
      test(`${name}, ${climb ? 'climb' : 'conventional'}: none, in less than twice the time`, () => {
        const opened = pocket(area, { ...settings, climb }, clipper);
        const slotted = pocket(area, { ...settings, climb, slots: true }, clipper);
        // A helix or a ramp into solid wood is a way in, not a slot; so is what is shorter than the bit is wide.
        expect(engagementOf(opened.path, 3, -3).slots).toBe(0);
        const minutes = (path: typeof opened.path) => planMotion(path, limits).minutes;
        expect(minutes(opened.path)).toBeLessThan(2 * minutes(slotted.path));
        // Both clear the same floor.
        expect(opened.left).toBeCloseTo(slotted.left, 6);
      });
  test('the long ones do have slots where these are allowed, so that the check above can fail', () => {
    for (const name of ['a rectangle of 100 × 20', 'an L with arms 20 wide', 'a T'])
      expect(
        engagementOf(pocket(SHAPES[name], { ...settings, slots: true }, clipper).path, 3, -3).slots,
      ).toBeGreaterThan(60);
  });
  test('where loops would double the time, a slot is left', () => {
    const ring = clipper.union([circle(50, 50, 30), circle(50, 50, 15)], 'evenodd');
    const opened = pocket(ring, settings, clipper);
    const slotted = pocket(ring, { ...settings, slots: true }, clipper);
    expect(planMotion(opened.path, limits).minutes).toBeLessThan(2 * planMotion(slotted.path, limits).minutes);
    expect(engagementOf(opened.path, 3, -3).slots).toBeGreaterThan(50);
  });
  describe('behind a larger bit', () => {
    // A disc that a 24 mm bit clears, with an arm 20 mm wide that it cannot enter.
    const area = () => clipper.union([circle(0, 0, 30), Float64Array.of(0, -10, 110, -10, 110, 10, 0, 10)], 'nonzero');
    const large = () => ({ path: pocket(area(), { ...settings, diameter: 24, step: 9 }, clipper).path, radius: 12 });
    const rest = (slots: boolean) => pocket(area(), { ...settings, clearedBy: [12], slots }, clipper);
    test('an arm that it could not enter is opened with loops, in less than twice the time', () => {
      const opened = rest(false);
      expect(engagementOf(opened.path, 3, -3, [large()]).slots).toBe(0);
      const minutes = ({ path }: typeof opened) => planMotion(path, limits).minutes;
      expect(minutes(opened)).toBeLessThan(2 * minutes(rest(true)));
      expect(opened.left).toBeCloseTo(rest(true).left, 6);
      // The loops keep to the arm: nothing is looped where the large bit has been.
      const inDisc = (path: typeof opened.path) => {
        let n = 0;
        for (let i = 0; i < path.feed.length; i++)
          if (path.xyz[3 * i + 2] < 0 && Math.hypot(path.xyz[3 * i], path.xyz[3 * i + 1]) < 15) n++;
        return n;
      };
      expect(inDisc(opened.path)).toBe(inDisc(rest(true).path));
    });
    test('it would be a slot without them', () => {
      expect(engagementOf(rest(true).path, 3, -3, [large()]).slots).toBeGreaterThan(60);
    });
  });
  test('lines are opened along the first of them', () => {
    const lines = pocket(SHAPES['a rectangle of 100 × 20'], { ...settings, pattern: 'lines' }, clipper);
    expect(engagementOf(lines.path, 3, -3).slots).toBe(0);
    const slotted = pocket(SHAPES['a rectangle of 100 × 20'], { ...settings, pattern: 'lines', slots: true }, clipper);
    expect(engagementOf(slotted.path, 3, -3).slots).toBeGreaterThan(60);
  });
  test('any star: loops keep to where the bit may be, and no loop leads through a wall', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 4, max: 60, noNaN: true }), { minLength: 5, maxLength: 20 }),
        fc.constantFrom(1, 3, 6),
        fc.double({ min: 0.15, max: 0.9, noNaN: true }),
        fc.constantFrom('rings' as const, 'lines' as const),
        fc.boolean(),
        (radii, diameter, share, pattern, climb) => {
          const star = Float64Array.from(
            radii.flatMap((r, i) => [
              r * Math.cos((2 * Math.PI * i) / radii.length),
              r * Math.sin((2 * Math.PI * i) / radii.length),
            ]),
          );
          const area = clipper.union([star], 'nonzero');
          fc.pre(clipper.offset(area, -diameter / 2).length > 0);
          const { path } = pocket(
            area,
            { ...settings, diameter, step: share * diameter, pattern, angle: share, climb },
            clipper,
          );
          const edge = Clearance.ofLoops(area);
          let least = Infinity;
          for (let i = 1; i < path.feed.length; i++) {
            if (path.xyz[3 * i + 2] > 0 || path.xyz[3 * i - 1] > 0) continue;
            for (const t of [0.5, 1]) {
              const x = path.xyz[3 * i - 3] + t * (path.xyz[3 * i] - path.xyz[3 * i - 3]);
              const y = path.xyz[3 * i - 2] + t * (path.xyz[3 * i + 1] - path.xyz[3 * i - 2]);
              least = Math.min(least, insideArea(area, x, y) ? edge.at(x, y) : -edge.at(x, y));
            }
          }
          expect(least).toBeGreaterThan(diameter / 2 - 0.01);
        },
      ),
      {
        numRuns: 25,
        seed: 4,
        endOnFailure: true,
        examples: [
          // The circle in a sharp corner whose sides were sampled unevenly lay outside, and the axis went there.
          [
            [
              53.07, 5.26, 9.23, 19.2, 14.78, 36.92, 14.37, 15.32, 6.94, 9.4, 25.37, 12.57, 59.21, 21.21, 59.9, 50.35,
              23.78, 29.36, 22.24, 6.98,
            ],
            3,
            0.15,
            'rings',
            true,
          ],
          // Beside its middle a first line left the area.
          [
            [4.16, 9.33, 42.81, 11.26, 43.76, 48.67, 6.7, 9.41, 53.58, 22.23, 24.95, 5.24, 31.67, 9.47, 27.35, 9.69],
            1,
            0.15,
            'lines',
            true,
          ],
        ],
      },
    );
  });
});

describe('loops along a line', () => {
  const free = { radius: 3, step: 2.4, climb: true, room: () => 10 };
  test('one loop a step, each half the bit’s radius wide, the first to go down along', () => {
    const track = openingAlong(0, 0, 24, 0, free)!;
    const first = track.xyz.subarray(0, 3 * track.ring);
    expect(Array.from(first.subarray(0, 2))).toEqual(Array.from(first.subarray(first.length - 3, first.length - 1)));
    for (let i = 0; i < first.length; i += 3) expect(Math.hypot(first[i], first[i + 1])).toBeCloseTo(1.5, 9);
    let furthest = 0;
    for (let i = 0; i < track.xyz.length; i += 3) furthest = Math.max(furthest, track.xyz[i]);
    // Ten steps of 2.4 mm, and the loop's own radius.
    expect(furthest).toBeCloseTo(24 + 1.5, 2);
  });
  test('climb turns to the left, conventional to the right', () => {
    const area = (climb: boolean) => {
      const { xyz, ring } = openingAlong(0, 0, 10, 0, { ...free, climb })!;
      let twice = 0;
      for (let i = 3; i < 3 * ring; i += 3) twice += xyz[i - 3] * xyz[i + 1] - xyz[i] * xyz[i - 2];
      return twice / 2;
    };
    expect(area(true)).toBeCloseTo(Math.PI * 1.5 ** 2, 1);
    expect(area(false)).toBeCloseTo(-Math.PI * 1.5 ** 2, 1);
  });
  test('no room to turn, no opening; little room, small loops', () => {
    expect(openingAlong(0, 0, 20, 0, { ...free, room: () => 0.1 })).toBeUndefined();
    const { xyz } = openingAlong(0, 0, 20, 0, { ...free, room: () => 0.8 })!;
    let widest = 0;
    for (let i = 1; i < xyz.length; i += 3) widest = Math.max(widest, Math.abs(xyz[i]));
    expect(widest).toBeCloseTo(0.8, 2);
  });
});
