import { describe, expect, test } from 'vitest';
import { depthForRadius, type Profile, radiusAtDepth, ridgeHeight } from '../tools/turned.ts';
import { sweptHeight } from '../carving/swept.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { Clearance } from '../geometry/clearance.ts';
import { contains } from '../geometry/outline.ts';
import { profile } from '../ways/profile.ts';
import { type Carvables, carvablesOf } from '../ways/carvable.ts';
import { vCarve } from './v-carve/v-carve.ts';

const vBit = (degrees: number, tip = 0): Profile => ({
  flat: tip / 2,
  slope: Math.tan((degrees * Math.PI) / 360),
  radius: 6.35,
});
const settings = { depthLimit: 20, floorStep: 0.4, feed: 1500, plunge: 1200, lift: 5, rapid: 2400 };
const none: Carvables = { regions: [], places: [], open: 0 };
const carvables = (...points: Float64Array[]) =>
  carvablesOf(
    points.map((p) => ({ name: '', rule: 'nonzero' as const, outlines: [{ points: p, closed: true }] })),
    clipper,
  );
const square = Float64Array.of(0, 0, 60, 0, 60, 4, 0, 4);

describe('V-bits by trigonometry', () => {
  // Half a groove's width over its depth is the tangent of half the included angle.
  test.each([
    [30, 7.4641],
    [60, 3.4641],
    [90, 2],
  ])('a groove 4 mm wide with a %i° bit is %f mm deep', (angle, depth) => {
    expect(depthForRadius(vBit(angle), 2)).toBeCloseTo(depth, 4);
    expect(radiusAtDepth(vBit(angle), depth)).toBeCloseTo(2, 4);
  });
  test('a 90° bit is tan 45°/tan 30° = 1.73 times shallower than a 60° bit', () => {
    expect(depthForRadius(vBit(60), 3) / depthForRadius(vBit(90), 3)).toBeCloseTo(1.732, 3);
  });
  test('ridges on a floor: (s − 2t)/(2·tan α)', () => {
    expect(ridgeHeight(vBit(90), 0.5)).toBeCloseTo(0.25, 9);
    expect(ridgeHeight(vBit(90, 0.6), 0.5)).toBe(0);
  });
});

describe('V-carve', () => {
  test.each([30, 60, 90])('a slot 4 mm wide is carved to the depth of its half width with a %i° bit', async (angle) => {
    const { path, fullDepth } = await vCarve(await carvables(square), { ...settings, bit: vBit(angle) }, clipper);
    const deepest = -Math.min(...path.xyz.filter((_, i) => i % 3 === 2));
    expect(deepest).toBeCloseTo(2 / Math.tan((angle * Math.PI) / 360), 2);
    expect(fullDepth).toBeCloseTo(deepest, 2);
  });
  test('sharp corners are reached, and nothing outside is cut by more than 10 µm', async () => {
    const star = Float64Array.from(
      Array.from({ length: 10 }, (_, i) => {
        const r = i % 2 ? 8 : 20;
        return [r * Math.cos((Math.PI * i) / 5), r * Math.sin((Math.PI * i) / 5)];
      }).flat(),
    );
    const bit = vBit(60);
    const { path } = await vCarve(await carvables(star), { ...settings, bit }, clipper);
    const clearance = Clearance.ofLoops([star]);
    let nearest = Infinity;
    for (let i = 0; i < path.feed.length; i++) {
      const [x, y, z] = [path.xyz[3 * i], path.xyz[3 * i + 1], path.xyz[3 * i + 2]];
      if (z > 0) continue;
      nearest = Math.min(nearest, Math.hypot(x - 20, y));
      if (z < -0.02) expect(contains(star, x, y)).toBe(true);
      expect(radiusAtDepth(bit, -z)).toBeLessThan(clearance.at(x, y) + 0.01);
    }
    expect(nearest).toBeLessThan(0.01);
  });
  test('the depth limit leaves a floor whose ridges are what the step implies', async () => {
    const wide = Float64Array.of(0, 0, 30, 0, 30, 20, 0, 20);
    const bit = vBit(60);
    const { path, floorArea } = await vCarve(await carvables(wide), { ...settings, bit, depthLimit: 3 }, clipper);
    const inset = radiusAtDepth(bit, 3);
    expect(floorArea).toBeCloseTo((30 - 2 * inset) * (20 - 2 * inset), 1);
    const ridge = ridgeHeight(bit, settings.floorStep);
    for (const [x, y] of [
      [15, 10],
      [8.3, 9.1],
      [20.7, 12.2],
      [4.4, 15.9],
    ]) {
      let height = 0;
      for (let i = 1; i < path.feed.length; i++) {
        const p = path.xyz.subarray(3 * i - 3, 3 * i + 3);
        height = Math.min(height, sweptHeight(bit, p[0], p[1], p[2], p[3], p[4], p[5], x, y));
      }
      expect(height).toBeGreaterThan(-3.001);
      expect(height).toBeLessThan(-3 + ridge * 1.05);
    }
  });
  test('a depth that is no whole number of micrometres leaves no floor at the widest place', async () => {
    const plate = Float64Array.of(0, 0, 9.3439, 0, 9.3439, 8.7666, 0, 8.7666);
    const disc = Float64Array.from(
      Array.from({ length: 48 }, (_, i) => [1.5075 + 1.5072 * Math.cos((Math.PI * i) / 24), 4.4284 - 1.5072 * Math.sin((Math.PI * i) / 24)]).flat(), // prettier-ignore
    );
    const outlines = [plate, disc].map((points) => ({ points, closed: true }));
    const shapes = await carvablesOf([{ name: '', rule: 'evenodd', outlines }], clipper);
    const { lifts, floorArea } = await vCarve(shapes, { ...settings, bit: vBit(90) }, clipper);
    expect([lifts, floorArea]).toEqual([0, 0]);
  });
  test('plunging bounds the feed on the way down', async () => {
    const { path } = await vCarve(await carvables(square), { ...settings, bit: vBit(60), plunge: 300 }, clipper);
    for (let i = 1; i < path.feed.length; i++) {
      const d = [0, 1, 2].map((k) => path.xyz[3 * i + k] - path.xyz[3 * i - 3 + k]);
      const down = -d[2];
      if (path.feed[i] > 0 && down > 0) expect((path.feed[i] * down) / Math.hypot(...d)).toBeLessThan(300.001);
    }
  });
  test('shapes narrower than the tip are counted, not cut', async () => {
    const hair = Float64Array.of(0, 0, 40, 0, 40, 0.3, 0, 0.3);
    const { path, tooNarrow } = await vCarve(await carvables(hair), { ...settings, bit: vBit(30, 0.5) }, clipper);
    expect(path.feed).toHaveLength(0);
    expect(tooNarrow).toBeGreaterThan(38);
  });
  test('settings that cannot be cut get a sentence', async () => {
    await expect(vCarve(none, { ...settings, bit: { flat: 3, slope: 0, radius: 3 } }, clipper)).rejects.toThrow(
      /needs a V-bit/,
    );
    await expect(vCarve(none, { ...settings, bit: vBit(60), floorStep: 0 }, clipper)).rejects.toThrow(
      /floor step is 0/,
    );
  });
});

describe('profile', () => {
  const board = Float64Array.of(20, 30, 120, 30, 120, 90, 20, 90);
  const order = {
    diameter: 6,
    side: 'outside' as const,
    depth: 12.5,
    depthPerPass: 5,
    climb: true,
    tabs: { count: 4, length: 8, height: 3 },
    thickness: 12,
    feed: 2000,
    plunge: 600,
    lift: 5,
  };
  test('extents are the outline’s, offset by the bit’s radius', () => {
    for (const [side, r] of [
      ['outside', 3],
      ['on', 0],
      ['inside', -3],
    ] as const) {
      const { path } = profile([board], { ...order, side }, clipper);
      const at = (k: number) => [...path.xyz].filter((_, i) => i % 3 === k);
      expect(Math.min(...at(0))).toBeCloseTo(20 - r, 3);
      expect(Math.max(...at(0))).toBeCloseTo(120 + r, 3);
      expect(Math.min(...at(1))).toBeCloseTo(30 - r, 3);
      expect(Math.max(...at(1))).toBeCloseTo(90 + r, 3);
      expect(Math.min(...at(2))).toBeCloseTo(-12.5, 9);
    }
  });
  test('tabs stand as high and as long as asked, and away from corners', () => {
    const { path, tabs } = profile([board], order, clipper);
    expect(tabs).toHaveLength(4);
    for (const tab of tabs) {
      const corner = Math.min(
        ...[
          [17, 27],
          [123, 27],
          [123, 93],
          [17, 93],
        ].map(([x, y]) => Math.hypot(tab.x - x, tab.y - y)),
      );
      expect(corner).toBeGreaterThan(10);
      // What stands across the cut at the tab's middle.
      let height = 0;
      for (let i = 1; i < path.feed.length; i++) {
        const p = path.xyz.subarray(3 * i - 3, 3 * i + 3);
        height = Math.min(
          height,
          sweptHeight({ flat: 3, slope: 0, radius: 3 }, p[0], p[1], p[2], p[3], p[4], p[5], tab.x, tab.y),
        );
      }
      expect(height).toBeCloseTo(-(12 - 3), 6);
    }
  });
  test('climb milling goes clockwise round a part, conventional the other way', () => {
    const turn = (climb: boolean) => {
      const { path } = profile([board], { ...order, climb, tabs: { ...order.tabs, count: 0 } }, clipper);
      let area = 0;
      for (let i = 1; i < path.feed.length; i++)
        if (path.xyz[3 * i + 2] === -12.5)
          area += path.xyz[3 * i - 3] * path.xyz[3 * i + 1] - path.xyz[3 * i] * path.xyz[3 * i - 2];
      return Math.sign(area);
    };
    expect(turn(true)).toBe(-1);
    expect(turn(false)).toBe(1);
  });
  test('a bit that does not fit gets a sentence', () => {
    expect(() => profile([board], { ...order, side: 'inside', diameter: 80 }, clipper)).toThrow(
      /wider than the outline/,
    );
  });
});
