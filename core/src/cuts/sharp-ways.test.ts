import { describe, expect, test } from 'vitest';
import { engagementOf } from '../carving/engagement.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { insideArea } from '../geometry/stretches.ts';
import type { Path } from '../motion/path.ts';
import { flatTrack } from '../motion/track.ts';
import { carvablesOf } from '../ways/carvable.ts';
import { enterTrack } from '../ways/entry.ts';
import { pocket, type PocketSettings } from '../ways/pocket.ts';
import { profile } from '../ways/profile.ts';
import { placeTabs } from '../ways/tabs.ts';
import { nestRings } from '../ways/rings.ts';
import { vCarve } from './v-carve/v-carve.ts';
import { rampsBehindTabs } from '../ways/profile-ramps.ts';

const points = ({ xyz }: { xyz: Float64Array }) =>
  Array.from({ length: xyz.length / 3 }, (_, i) => [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]]);
const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 300,
};

describe('a helix', () => {
  const radius = 3;
  const way = points(
    enterTrack(flatTrack([...box(0, 0, 60, 60)], -3, true), 0, { kind: 'helix', angle: 0.1 }, 50, radius),
  );
  const round = way.filter(([x, y, z]) => z > -3 && Math.hypot(x, y) > 0);
  test('is no wider than four fifths of the bit’s radius however much room there is, so that no core is left', () => {
    for (const [x, y] of round) expect(Math.hypot(x, y)).toBeCloseTo(0.8 * radius, 9);
  });
  test('goes once round at the depth, so that its floor is flat', () => {
    const level = way.filter(([x, y, z]) => z === -3 && Math.abs(Math.hypot(x, y) - 0.8 * radius) < 1e-9);
    const angles = level.map(([x, y]) => Math.round(((Math.atan2(y, x) / Math.PI) * 180 + 360) % 360) % 360);
    expect(new Set(angles).size).toBe(36);
  });
});

describe('a pocket', () => {
  const settings: PocketSettings = { feed: 1500, plunge: 600, lift: 5, diameter: 6, depth: 6, depthPerPass: 2, step: 2.4, pattern: 'rings', angle: 0, climb: true, finish: 0, entry: { kind: 'ramp', angle: 0.1 }, limits }; // prettier-ignore
  test('is opened in a short arm between two wide parts, whose rings are no further off than twice the radius', () => {
    const dumbBell = Float64Array.of(
      ...[0, 0, 40, 0, 40, 10, 50, 10, 50, 0, 90, 0, 90, 40, 50, 40, 50, 30, 40, 30, 40, 40, 0, 40],
    ); // prettier-ignore
    const cut = (slots: boolean) => pocket([dumbBell], { ...settings, depth: 2, slots }, clipper);
    expect(engagementOf(cut(true).path, 3, -2).slots).toBeGreaterThan(6);
    expect(engagementOf(cut(false).path, 3, -2).slots).toBe(0);
  });
});

test('rings are joined within the area only: a way across a notch is none', () => {
  const horseshoe = Float64Array.of(
    ...[0, 0, 30, 0, 30, 30, 20, 30, 20, 18, 20, 5, 10, 5, 10, 30, 0, 30],
  ); // prettier-ignore
  const inner = Float64Array.of(9, 18, 9, 22, 5, 22, 5, 18);
  for (const track of nestRings([[horseshoe], [inner]], -1)) {
    const way = points(track);
    for (let i = 1; i < way.length; i++)
      for (const t of [0.25, 0.5, 0.75]) {
        const [x, y] = [0, 1].map((k) => way[i - 1][k] + t * (way[i][k] - way[i - 1][k]));
        const onEdge = [x, y, x - 30, y - 30, x - 10, x - 20, y - 5].some((d) => Math.abs(d) < 1e-9);
        expect(onEdge || insideArea([horseshoe], x, y)).toBe(true);
      }
  }
});

describe('V-carving', () => {
  const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 10 };
  const carve = async (loop: Float64Array, change: object) =>
    vCarve(
      await carvablesOf([{ name: '', rule: 'nonzero', outlines: [{ points: loop, closed: true }] }], clipper),
      { bit, depthLimit: 20, floorStep: 0.5, feed: 1000, plunge: 900, lift: 5, rapid: 2400, ...change },
      clipper,
    );
  test('a later pass leaves out what an earlier one made deep enough', async () => {
    const { path } = await carve(box(0, 0, 60, 6), { depthPerPass: 2 });
    const third = Math.floor((3 / bit.slope / 3) * 1000) / 1000;
    let deepest = 0;
    let again = 0;
    points(path as Path).forEach(([x, y, z], i, all) => {
      if (i > 0 && path.feed[i] > 0) {
        const [px, py, pz] = all[i - 1];
        // What of the way, seen from above, lies above the first pass's floor after that was left for good.
        const [low, high] = [Math.min(z, pz), Math.max(z, pz)];
        const share =
          high > low ? Math.max(0, Math.min(1, (high - (0.02 - third)) / (high - low))) : Number(low > 0.02 - third);
        if (deepest < -third - 0.01) again += share * Math.hypot(x - px, y - py);
      }
      deepest = Math.min(deepest, z);
    });
    expect(again).toBeLessThan(0.5);
  });
  test('of a wedge exactly the length is counted that is narrower than the tip', async () => {
    // 1 mm wide at its end, 40 mm long: under the 0.6 mm of the tip over the last 60 % of it; its two corners are rounded.
    const { tooNarrow } = await carve(Float64Array.of(0, -0.5, 40, 0, 0, 0.5), { bit: { ...bit, flat: 0.3 } });
    expect(tooNarrow).toBeCloseTo(24, 1);
  });
});

test('a ramped tab rises evenly to its middle and falls again, on a round wall and from any start', () => {
  const round = Float64Array.from(
    Array.from({ length: 300 }, (_, i) => [50 + 40 * Math.cos((Math.PI * i) / 150), 50 + 40 * Math.sin((Math.PI * i) / 150)]).flat(), // prettier-ignore
  );
  for (const start of [[{ x: 93, y: 50 }], [{ x: 50, y: 93 }], [{ x: 20, y: 20 }]]) {
    const { path, tabs } = profile(
      [round],
      { feed: 1000, plunge: 500, lift: 5, diameter: 6, side: 'outside', depth: 8, depthPerPass: 8, climb: true, thickness: 8, start, tabs: { count: 3, length: 10, height: 3, shape: 'ramped' } },
      clipper,
    ); // prettier-ignore
    expect(tabs).toHaveLength(3);
    // Along the way of the bit a tab is longer by the bit, half on each side; it rises over half of its own length.
    const half = (10 * 43) / 40 / 2;
    let onTabs = 0;
    for (const { x, y } of tabs)
      for (let i = 0; i < path.feed.length; i++) {
        if (path.feed[i] === 0) continue;
        const [px, py, pz] = path.xyz.subarray(3 * i, 3 * i + 3);
        const off = Math.hypot(px - x, py - y);
        if (off > half || pz > -4) continue;
        onTabs++;
        expect(Math.abs(pz - (-8 + 3 * (1 - off / half)))).toBeLessThan(0.45);
      }
    expect(onTabs).toBeGreaterThan(30);
  }
});

test('tabs keep off every corner of a turned board, the first point’s too', () => {
  for (let degrees = 5; degrees < 360; degrees += 23) {
    const [c, n] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const corners = [[0, 0], [60, 0], [60, 40], [0, 40]].map(([x, y]) => [c * x - n * y, n * x + c * y]); // prettier-ignore
    // So many tabs that some would lie in corners by even spacing, wherever the loop begins.
    for (let first = 0; first < 4; first++) {
      const loop = Float64Array.from([...corners.slice(first), ...corners.slice(0, first)].flat());
      const tabs = placeTabs(loop, 5, 8);
      expect(tabs).toHaveLength(5);
      for (const { x, y } of tabs)
        for (const [px, py] of corners) expect(Math.hypot(x - px, y - py)).toBeGreaterThan(7.9);
    }
  }
});

test('where the first ring is tiny a ramp goes along what follows, no steeper, and the track is whole after it', () => {
  const circle = (r: number, n: number) =>
    Array.from({ length: n + 1 }, (_, i) => [r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n), -3]).flat(); // prettier-ignore
  for (const [first, goesOut] of [[0.4, true], [3, false]] as const) {
    const xyz = Float64Array.from([...circle(first, 12), ...circle(8, 60)]);
    const track = { xyz, closed: false, ring: 13, oneWay: true };
    const way = points(enterTrack(track, 0, { kind: 'ramp', angle: 0.02 }, 0, 1.6));
    let down = 0;
    for (let i = 1; i < way.length && way[i - 1][2] > -3; i++) {
      const long = Math.hypot(way[i][0] - way[i - 1][0], way[i][1] - way[i - 1][1]);
      expect(way[i - 1][2] - way[i][2]).toBeLessThan(long * Math.tan(0.02) + 1e-9);
      down = i;
    }
    expect(way.slice(0, down).some(([x, y]) => Math.hypot(x, y) > first + 1)).toBe(goesOut);
    // Behind the way down every place of the track is gone over at depth.
    const deep = way.slice(down).map(([x, y]) => `${x.toFixed(6)} ${y.toFixed(6)}`);
    for (const [x, y] of points(track)) expect(deep).toContain(`${x.toFixed(6)} ${y.toFixed(6)}`);
  }
}); // prettier-ignore

test('behind a tab a turn begins at what the pass before left there, or at the tab where that is lower, and comes back to it', () => {
  // 3 mm over a floor of 8 up to x = 10, and on at the floor.
  const way = [0, 0, -3, 10, 0, -3, 10, 0, -8, 40, 0, -8];
  const slope = 0.1;
  for (const [above, begins] of [[-5, -5], [-1, -3]]) {
    const out = rampsBehindTabs(way, above, slope, 0.6);
    const points = Array.from({ length: out.length / 3 }, (_, n) => out.slice(3 * n, 3 * n + 3));
    expect(points.slice(0, 3)).toEqual([[0, 0, -3], [10, 0, -3], [10, 0, begins]]);
    expect(points.slice(-3)).toEqual([[10, 0, -8], [10, 0, -8], [40, 0, -8]]);
    for (let n = 3; n < points.length; n++) {
      const [[ax, , az], [bx, , bz]] = [points[n - 1], points[n]];
      expect(az - bz).toBeLessThanOrEqual(Math.abs(bx - ax) * Math.tan(slope) + 1e-9);
      expect(bx).toBeGreaterThanOrEqual(10);
    }
    // As long as the slope needs, and no longer.
    const gone = points.slice(2, -1).reduce((sum, [x], n, all) => sum + (n ? Math.abs(x - all[n - 1][0]) : 0), 0);
    expect(gone).toBeCloseTo((begins + 8) / Math.tan(slope), 6);
  }
  // Where the turn ends it has been cut already: what is left is too short to go there and back along.
  const end = [0, 0, -3, 10, 0, -3, 10, 0, -8, 10.5, 0, -8];
  expect(rampsBehindTabs(end, -5, slope, 0.6)).toEqual(end);
  expect(rampsBehindTabs(end, -5, slope, 0.5).length).toBeGreaterThan(end.length);
}); // prettier-ignore
