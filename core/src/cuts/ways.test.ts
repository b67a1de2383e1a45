/* eslint max-lines: off -- one set of cases about one thing */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { radiusAtDepth } from '../tools/turned.ts';
import { Clearance } from '../geometry/clearance.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { signedArea } from '../geometry/outline.ts';
import { insideArea } from '../geometry/stretches.ts';
import { type Path, pathAlong } from '../motion/path.ts';
import { flatTrack, reverseTrack, shiftTrack, type Track, trackAt } from '../motion/track.ts';
import { carvablesOf } from '../ways/carvable.ts';
import { enterTrack } from '../ways/entry.ts';
import { openedBy } from '../ways/floor.ts';
import { layTracks } from '../ways/lay-tracks.ts';
import { passDepths } from '../ways/pass-depths.ts';
import { pocket, type PocketSettings } from '../ways/pocket.ts';
import { profile, type ProfileSettings } from '../ways/profile.ts';
import { ringLevels } from '../ways/ring-levels.ts';
import { nestRings } from '../ways/rings.ts';
import { scanLines } from '../ways/scan-lines.ts';
import { ArcLength } from '../geometry/arc-length.ts';
import { Turning } from '../geometry/turning.ts';
import { placeTabs, tabAt, tabRound } from '../ways/tabs.ts';
import { vCarve, type VCarveSettings } from './v-carve/v-carve.ts';

const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const hole = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x, y + h, x + w, y + h, x + w, y);
const points = ({ xyz }: { xyz: Float64Array }) =>
  Array.from({ length: xyz.length / 3 }, (_, i) => [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]]);
const heights = (path: { xyz: Float64Array }) => points(path).map(([, , z]) => z);
/** Steepest way down along a path below the top, as a slope. */
function steepest({ xyz, feed }: Path): number {
  let most = 0;
  for (let i = 1; i < feed.length; i++) {
    const [dx, dy, dz] = [0, 1, 2].map((k) => xyz[3 * i + k] - xyz[3 * i - 3 + k]);
    if (feed[i] > 0 && dz < -1e-9 && xyz[3 * i - 1] <= 0) most = Math.max(most, -dz / Math.hypot(dx, dy));
  }
  return most;
}
const drive = { feed: 1500, plunge: 600, lift: 5 };

describe('depths of passes', () => {
  test('even, and none more than asked', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.double({ min: 0.05, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 0.09, noNaN: true }),
        (depth, perPass, thin) => {
          const last = Math.min(thin, perPass);
          const depths = passDepths(depth, 0, perPass, last);
          expect(depths.at(-1)).toBe(depth);
          let before = 0;
          for (const d of depths) {
            expect(d).toBeGreaterThan(before);
            expect(d - before).toBeLessThanOrEqual(perPass + 1e-6);
            before = d;
          }
        },
      ),
    );
  });
  test('a start depth and a thin last pass', () => {
    expect(passDepths(10, 4, 3, 0)).toEqual([7, 10]);
    expect(passDepths(10, 0, 5, 0.5)).toEqual([4.75, 9.5, 10]);
  });
  test.each([
    [0, 0, 1, 0, /depth is 0/],
    [3, 4, 1, 0, /not below the start depth/],
    [3, 0, 0, 0, /depth per pass is 0/],
    [3, 0, 1, 3, /thicker than the whole cut/],
  ])('passDepths(%d, %d, %d, %d) gets a sentence', (depth, start, perPass, last, sentence) => {
    expect(() => passDepths(depth, start, perPass, last)).toThrow(sentence);
  });
});

describe('tracks', () => {
  const track: Track = { ...flatTrack([0, 0, 10, 0, 10, 5], -2, false) };
  test('shifted, at another height, and the other way', () => {
    expect(points(shiftTrack(track, 1, 2))).toEqual([[1, 2, -2], [11, 2, -2], [11, 7, -2]]); // prettier-ignore
    expect(heights(trackAt(track, -3))).toEqual([-3, -3, -3]);
    expect(points(reverseTrack(track))[0]).toEqual([10, 5, -2]);
    expect(heights(track)).toEqual([-2, -2, -2]);
  });
  test('laid as a path: up, across, down, along, and up at the end', () => {
    const { path, lifts } = layTracks([track, shiftTrack(track, 40, 0)], drive);
    expect(lifts).toBe(1);
    expect(points(path)[0][2]).toBe(5);
    expect(points(path).at(-1)![2]).toBe(5);
    for (let i = 1; i < path.feed.length; i++) {
      const [ax, ay, az, bx, by, bz] = path.xyz.subarray(3 * i - 3, 3 * i + 3);
      const across = Math.hypot(bx - ax, by - ay) > 0;
      // Nothing moves across below the lift without a feed, and nothing rapid goes into the stock.
      if (path.feed[i] === 0) expect(across ? Math.min(az, bz) : bz).toBeGreaterThan(0);
    }
  });
});

describe('ways in', () => {
  const slope = Math.tan(0.1);
  const ring: Track = { ...flatTrack([...box(0, 0, 20, 10)], -3, true) };
  const line: Track = flatTrack([0, 0, 15, 0, 15, 8], -3, false);
  const steep = ({ xyz }: Track) => steepest(pathAlong(xyz, 1000));
  test.each([
    ['round a ring', ring, 'ramp'],
    ['back and forth on a line', line, 'ramp'],
    ['in a helix', ring, 'helix'],
  ] as const)('%s it goes down no steeper than asked, from the top to the depth', (_, track, kind) => {
    const way = enterTrack(track, 0, { kind, angle: 0.1 }, 4, 3);
    expect(steep(way)).toBeLessThan(slope + 1e-9);
    expect(heights(way)[0]).toBeCloseTo(0, 9);
    expect(Math.min(...heights(way))).toBe(-3);
  });
  test('after the way in, the whole track is cut at its depth', () => {
    for (const [track, kind] of [
      [ring, 'ramp'],
      [line, 'ramp'],
      [ring, 'helix'],
    ] as const) {
      const way = points(enterTrack(track, 0, { kind, angle: 0.1 }, 4, 3));
      const level = way.filter(([, , z]) => z === -3);
      const sampled = points(track);
      for (const [x, y] of sampled) expect(level.some(([px, py]) => Math.hypot(px - x, py - y) < 1e-9)).toBe(true);
      // The track's full length is gone along level.
      let length = 0;
      for (let i = 1; i < way.length; i++)
        if (way[i][2] === -3 && way[i - 1][2] === -3)
          length += Math.hypot(way[i][0] - way[i - 1][0], way[i][1] - way[i - 1][1]);
      let own = 0;
      for (let i = 1; i < sampled.length; i++)
        own += Math.hypot(sampled[i][0] - sampled[i - 1][0], sampled[i][1] - sampled[i - 1][1]);
      expect(length).toBeGreaterThanOrEqual(own - 1e-6);
    }
  });
  test('a helix stays within the room there is, and gives way to a ramp where there is too little', () => {
    const wide = enterTrack(ring, 0, { kind: 'helix', angle: 0.1 }, 1.5, 3);
    for (const [x, y, z] of points(wide)) if (z > -3) expect(Math.hypot(x, y)).toBeLessThan(1.5 + 1e-9);
    const narrow = enterTrack(ring, 0, { kind: 'helix', angle: 0.1 }, 0.3, 3);
    expect(points(narrow)[0]).toEqual([0, 0, 0]);
  });
  test('a plunge leaves the track as it is', () => {
    expect(enterTrack(ring, 0, { kind: 'plunge', angle: 0 }, 4, 3)).toBe(ring);
  });
  test('a ramp longer than the ring goes round more than once', () => {
    const small: Track = flatTrack([...box(0, 0, 4, 3)], -3, true);
    const way = enterTrack(small, 0, { kind: 'ramp', angle: 0.05 }, 0, 3);
    expect(points(way).filter(([x, y]) => x === 0 && y === 0).length).toBeGreaterThan(4);
    expect(steep(way)).toBeLessThan(Math.tan(0.05) + 1e-9);
  });
});

describe('rings and lines', () => {
  test('levels are a step apart until nothing is left', () => {
    const levels = ringLevels([box(0, 0, 20, 10)], 1, 1.5, clipper);
    expect(levels).toHaveLength(3);
    expect(levels.map(([loop]) => Math.round(signedArea(loop)))).toEqual([18 * 8, 15 * 5, 12 * 2]);
  });
  test('rings are joined innermost first, without a lift where the way is free', () => {
    const [track, ...more] = nestRings(ringLevels([box(0, 0, 20, 10)], 1, 1.5, clipper), -1);
    expect(more).toEqual([]);
    const [x, y] = points(track)[0];
    expect(Math.min(x, 20 - x, y, 10 - y)).toBeCloseTo(4, 2);
    const [ex, ey] = points(track).at(-1)!;
    expect(Math.min(ex, 20 - ex, ey, 10 - ey)).toBeCloseTo(1, 2);
  });
  test('a dumb-bell gives one track for each of its ends, the outer ring last', () => {
    const bell = clipper.union([box(0, 0, 12, 12), box(12, 5, 10, 2.4), box(22, 0, 12, 12)], 'nonzero');
    const tracks = nestRings(ringLevels(bell, 1, 1, clipper), -1);
    expect(tracks).toHaveLength(2);
    const last = points(tracks[1]).at(-1)!;
    const edge = Clearance.ofLoops(bell);
    expect(edge.at(last[0], last[1])).toBeCloseTo(1, 2);
  });
  test('no track leaves the area of its first ring', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 6, max: 20, noNaN: true }), { minLength: 5, maxLength: 14 }), (radii) => {
        const star = Float64Array.from(
          radii.flatMap((r, i) => [
            r * Math.cos((2 * Math.PI * i) / radii.length),
            r * Math.sin((2 * Math.PI * i) / radii.length),
          ]),
        );
        const levels = ringLevels([star], 1, 0.8, clipper);
        if (levels.length === 0) return;
        const edge = Clearance.ofLoops(levels[0]);
        for (const { xyz } of [...nestRings(levels, -1), ...scanLines(levels[0], 0.4, 0.8, -1)])
          for (let i = 0; i < xyz.length; i += 3)
            for (const t of [0, 0.5]) {
              const j = Math.min(xyz.length - 3, i + 3);
              const x = xyz[i] + t * (xyz[j] - xyz[i]);
              const y = xyz[i + 1] + t * (xyz[j + 1] - xyz[i + 1]);
              expect(insideArea(levels[0], x, y) || edge.at(x, y) < 0.006).toBe(true);
            }
      }),
      { numRuns: 25, seed: 12 },
    );
  });
  test('lines are no further apart than the step, and go back and forth', () => {
    const [track, ...more] = scanLines([box(0, 0, 20, 10)], 0, 1.5, -1);
    expect(more).toEqual([]);
    const ys = [...new Set(points(track).map(([, y]) => Math.round(y * 1e6) / 1e6))];
    for (let i = 1; i < ys.length; i++) expect(ys[i] - ys[i - 1]).toBeLessThan(1.5 + 1e-6);
    expect(ys[0]).toBeLessThan(0.76);
    expect(ys.at(-1)).toBeGreaterThan(9.24);
  });
  test('across a hole lines are cut in two', () => {
    expect(scanLines([box(0, 0, 30, 10), hole(12, 3, 4, 4)], 0, 1, -1).length).toBeGreaterThan(1);
  });
});

describe('tabs', () => {
  const rounded = Float64Array.from(
    [
      [40, 0], [40, 30], [0, 30], [0, 0],
    ].flatMap(([cx, cy], q) =>
      Array.from({ length: 30 }, (_, k) => {
        const a = (Math.PI / 2) * (q - 1 + k / 29);
        return [cx + 8 * Math.cos(a), cy + 8 * Math.sin(a)];
      }).flat(),
    ),
  ); // prettier-ignore
  test('spread evenly, kept off tight curves', () => {
    const tabs = placeTabs(rounded, 4, 10);
    expect(tabs).toHaveLength(4);
    for (const { x, y } of tabs) expect((x > 1 && x < 39) || (y > 1 && y < 29)).toBe(true);
  });
  test('fewer where the outline is too short for them, none where it is far too short', () => {
    expect(placeTabs(box(0, 0, 20, 10), 8, 10)).toHaveLength(3);
    expect(placeTabs(box(0, 0, 3, 3), 2, 10)).toEqual([]);
  });
  test('kept off corners wherever an edge has room, also where a neighbour’s share of the way has none', () => {
    // A plus: twelve edges of 16 mm, offset by a bit of 6 mm.
    const corners = '16 0 32 0 32 16 48 16 48 32 32 32 32 48 16 48 16 32 0 32 0 16 16 16'.split(' ').map(Number);
    const [way] = clipper.offset([Float64Array.from(corners)], 3);
    for (const count of [2, 3, 4, 5, 6]) {
      const tabs = placeTabs(way, count, 12);
      expect(tabs).toHaveLength(count);
      const turning = new Turning(new ArcLength(way));
      for (const { from, to } of tabs) expect(turning.bend(from, to)).toBeLessThan(0.2);
    }
  });
  test('round a bend as much stands at the part as was asked for', () => {
    // Round a coin of 10 mm with a bit of 6: 6 mm of its edge are 9.6 mm of the bit’s way, 8 / 5 of it.
    const [coin] = clipper.offset([circleOf(5)], 3);
    for (const part of ['left', 'right'] as const) {
      const measured = new ArcLength(part === 'left' ? coin : flipped(coin));
      const { from, to } = tabRound(measured, new Turning(measured), 7, { length: 6, diameter: 6, part });
      expect(to - from).toBeGreaterThan(9.6 + 6 - 0.3);
      expect(to - from).toBeLessThan(9.6 + 6 + 0.8);
    }
    // In a hole its edge is longer than the way: no less than asked for stands.
    const [hole] = clipper.offset([circleOf(10)], -3);
    const measured = new ArcLength(hole);
    const { from, to } = tabRound(measured, new Turning(measured), 7, { length: 6, diameter: 6, part: 'right' });
    expect(to - from).toBeGreaterThan(12 - 1e-9);
    expect(to - from).toBeLessThan(12.8);
  });
  test('one put by hand is as wide as asked, round its place', () => {
    const tab = tabAt(box(0, 0, 40, 20), 25, 8);
    expect(tab).toMatchObject({ from: 21, to: 29, x: 25, y: 0 });
  });
});

function circleOf(r: number): Float64Array {
  return Float64Array.from(
    { length: 400 },
    (_, i) => r * (i % 2 ? Math.sin : Math.cos)((Math.PI * Math.floor(i / 2)) / 100),
  );
}
const flipped = (loop: Float64Array) => loop.map((_, i) => loop[loop.length - 2 - (i & ~1) + (i & 1)]);

describe('profiles', () => {
  test('tabs stand over a skin, and where stock is left below, only if asked for', () => {
    const made = (more: Partial<ProfileSettings>) => {
      const { tabs, heldBy } = profile(
        [box(0, 0, 100, 60)],
        { ...settings, depth: 12, thickness: 12, ...more },
        clipper,
      );
      return [tabs.length, heldBy];
    };
    const tabs = { count: 4, length: 6, height: 1.5 };
    expect(made({ tabs })).toEqual([4, undefined]);
    expect(made({ tabs, skin: 0.1 })).toEqual([0, 'skin']);
    expect(made({ tabs: { ...tabs, anyway: true }, skin: 0.1 })).toEqual([4, undefined]);
    expect(made({ tabs, depth: 5 })).toEqual([0, 'stock']);
    expect(made({ tabs: { ...tabs, anyway: true }, depth: 5 })).toEqual([4, undefined]);
    expect(made({ tabs: { ...tabs, count: 0 }, skin: 0.1 })).toEqual([0, undefined]);
  });
  const settings: ProfileSettings = {
    ...drive,
    diameter: 6,
    side: 'outside',
    depth: 12.5,
    depthPerPass: 5,
    climb: true,
    tabs: { count: 0, length: 6, height: 3 },
    thickness: 12,
  };
  const board = box(20, 20, 60, 40);
  /** Turning direction at full depth: positive counter-clockwise. */
  const direction = (path: Path) =>
    signedArea(
      Float64Array.from(
        points(path)
          .filter(([, , z]) => z === -12.5)
          .flatMap(([x, y]) => [x, y]),
      ),
    );
  test('climb goes clockwise round a part, conventional the other way, inside a hole the other way round', () => {
    expect(direction(profile([board], settings, clipper).path)).toBeLessThan(0);
    expect(direction(profile([board], { ...settings, climb: false }, clipper).path)).toBeGreaterThan(0);
    expect(direction(profile([board], { ...settings, side: 'inside' }, clipper).path)).toBeGreaterThan(0);
  });
  test('square tabs stand up to their height, ramped ones come to a ridge', () => {
    for (const shape of ['square', 'ramped'] as const) {
      const { path, tabs } = profile(
        [board],
        { ...settings, tabs: { count: 3, length: 6, height: 3, shape } },
        clipper,
      );
      expect(tabs).toHaveLength(3);
      for (const tab of tabs) {
        const over = points(path).filter(
          ([x, y, z]) => z < -9.001 && Math.hypot(x - tab.x, y - tab.y) < (shape === 'square' ? 5.9 : 0.5),
        );
        // Nothing goes under 9 mm (12 less 3) where a tab stands.
        expect(over).toEqual([]);
      }
      expect(Math.min(...heights(path))).toBe(-12.5);
    }
  });
  test('tabs by hand stand where they were put, and those far from the outline nowhere', () => {
    const at = [{ x: 50, y: 17 }, { x: 300, y: 300 }]; // prettier-ignore
    const { tabs } = profile([board], { ...settings, tabs: { ...settings.tabs, count: 4, at } }, clipper);
    expect(tabs).toHaveLength(1);
    expect(tabs[0].x).toBeCloseTo(50, 2);
    expect(tabs[0].y).toBeCloseTo(17, 2);
  });
  test('a skin is left at the bottom, and needs no tabs', () => {
    const { path, tabs } = profile(
      [board],
      { ...settings, skin: 0.3, tabs: { count: 4, length: 6, height: 3 } },
      clipper,
    );
    expect(Math.min(...heights(path))).toBeCloseTo(-11.7, 9);
    expect(tabs).toEqual([]);
  });
  test('a ramp is no steeper than asked, and passes follow each other without a lift', () => {
    const { path } = profile([board], { ...settings, ramp: 0.08 }, clipper);
    expect(steepest(path)).toBeLessThan(Math.tan(0.08) + 1e-9);
    expect(heights(path).filter((z) => z === 5)).toHaveLength(2);
  });
  test('an overlap goes on past the start in the last pass alone', () => {
    const length = (overlap: number) => {
      const { path } = profile([board], { ...settings, overlap }, clipper);
      const low = points(path).filter(([, , z]) => z === -12.5);
      return low.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - low[i][0], y - low[i][1]), 0);
    };
    expect(length(7) - length(0)).toBeCloseTo(7, 6);
  });
  test('a lead comes from the scrap, by a line or a quarter circle, and is left away where there is no room', () => {
    for (const kind of ['line', 'arc'] as const) {
      const { path, noLead } = profile([board], { ...settings, lead: { kind, length: 4 } }, clipper);
      expect(noLead).toBe(0);
      const [, , [x, y]] = points(path);
      expect(insideArea([box(17, 17, 66, 46)], x, y)).toBe(false);
    }
    const slot = box(20, 20, 60, 6.4);
    expect(profile([slot], { ...settings, side: 'inside', lead: { kind: 'arc', length: 4 } }, clipper).noLead).toBe(1);
  });
  test('it starts where it is told', () => {
    const { path } = profile([board], { ...settings, start: [{ x: 80, y: 60 }] }, clipper);
    const [x, y] = points(path)[0];
    expect(Math.hypot(x - 80, y - 60)).toBeLessThan(4.3);
  });
  test('a finishing round comes right after the rough ones of its own wall, inner before outer', () => {
    const plate = [board, hole(40, 30, 20, 20)];
    const { path } = profile(plate, { ...settings, finish: 0.5 }, clipper);
    const edge = Clearance.ofLoops(plate);
    const inner = (x: number, y: number) => x > 39 && x < 61 && y > 29 && y < 51;
    const visits: string[] = [];
    points(path).forEach(([x, y, z]) => {
      if (z >= 0) return;
      const which = `${inner(x, y) ? 'inner' : 'outer'} ${edge.at(x, y) > 3.25 ? 'rough' : 'finish'}`;
      if (visits.at(-1) !== which) visits.push(which);
    });
    expect(visits).toEqual(['inner rough', 'inner finish', 'outer rough', 'outer finish']);
  });
  test('parts beside each other are gone to by short ways', () => {
    const row = Array.from({ length: 12 }, (_, k) => box(20 * ((k * 5) % 12), 0, 8, 8));
    const { path } = profile(clipper.union(row, 'nonzero'), settings, clipper);
    let links = 0;
    for (let i = 1; i < path.feed.length; i++)
      if (path.feed[i] === 0)
        links += Math.hypot(path.xyz[3 * i] - path.xyz[3 * i - 3], path.xyz[3 * i + 1] - path.xyz[3 * i - 2]);
    expect(links).toBeLessThan(12 * 30);
  });
  test.each([
    [{ depth: 0 }, /depth is 0/],
    [{ depthPerPass: 0 }, /depth per pass is 0/],
    [{ skin: 12 }, /skin is as thick|skin is thicker/],
    [{ ramp: 0.9 }, /steeper than an end mill/],
    [{ side: 'inside', diameter: 60 } as const, /wider than the outline/],
  ])('%j gets a sentence', (change, sentence) => {
    expect(() => profile([board], { ...settings, ...change }, clipper)).toThrow(sentence);
  });
});

describe('pockets', () => {
  const settings: PocketSettings = {
    ...drive,
    diameter: 4,
    depth: 6,
    depthPerPass: 2.5,
    step: 1.6,
    pattern: 'rings',
    angle: 0,
    climb: true,
    finish: 0,
    entry: { kind: 'ramp', angle: 0.08 },
  };
  const area = [box(0, 0, 40, 30)];
  test('climb runs counter-clockwise along a pocket’s wall, conventional clockwise', () => {
    const wall = (climb: boolean) => {
      const { path } = pocket(area, { ...settings, climb }, clipper);
      const last = points(path).filter(([x, y, z]) => z === -6 && Math.min(x, 40 - x, y, 30 - y) < 2.01);
      return signedArea(Float64Array.from(last.flatMap(([x, y]) => [x, y])));
    };
    expect(wall(true)).toBeGreaterThan(0);
    expect(wall(false)).toBeLessThan(0);
  });
  test('a finish allowance stays until one last round at full depth', () => {
    const { path } = pocket(area, { ...settings, finish: 0.4 }, clipper);
    const wallOf = (x: number, y: number) => Math.min(x, 40 - x, y, 30 - y);
    const nearest = new Map<number, number>();
    const all = points(path);
    for (let i = 1; i < all.length; i++) {
      const [[ax, ay, az], [bx, by, z]] = [all[i - 1], all[i]];
      if (z >= 0) continue;
      // In a corner the rough round goes on along the bisector until the corner's own point is one allowance away.
      if (z > -6) expect(wallOf(bx, by)).toBeGreaterThan(2 + 0.4 * Math.SQRT1_2 - 1e-3);
      if (az === z && Math.hypot(bx - ax, by - ay) > 5)
        nearest.set(z, Math.min(nearest.get(z) ?? Infinity, wallOf((ax + bx) / 2, (ay + by) / 2)));
    }
    for (const [z, d] of nearest) expect(d).toBeCloseTo(z === -6 ? 2 : 2.4, 2);
  });
  test('a start depth begins below the top, and passes end at the depth', () => {
    const { path, passes } = pocket(area, { ...settings, startDepth: 2 }, clipper);
    expect(passes).toBe(2);
    const cut = heights(path).filter((z) => z < 0);
    expect(Math.max(...cut)).toBeLessThanOrEqual(-2);
    expect(Math.min(...cut)).toBe(-6);
  });
  test('a thin last pass', () => {
    const { path } = pocket(area, { ...settings, lastPass: 0.3, entry: { kind: 'plunge', angle: 0 } }, clipper);
    const levels = [...new Set(heights(path).filter((z) => z < 0))].sort((a, b) => b - a);
    expect(levels.map((z) => Math.round(z * 100) / 100)).toEqual([-1.9, -3.8, -5.7, -6]);
  });
  test('islands stay', () => {
    const { path } = pocket([box(0, 0, 40, 30), hole(15, 10, 10, 10)], settings, clipper);
    for (const [x, y, z] of points(path))
      if (z < 0) expect(Math.hypot(Math.max(0, 15 - x, x - 25), Math.max(0, 10 - y, y - 20))).toBeGreaterThan(1.995);
  });
  test('a second bit cuts only the corners, and each corner to its full depth before the next', () => {
    const { path, left } = pocket(area, { ...settings, diameter: 2, clearedBy: [3], step: 0.8 }, clipper);
    const corners = points(path)
      .filter(([, , z]) => z < 0)
      .map(([x, y]) => `${x < 20 ? 'l' : 'r'}${y < 15 ? 'b' : 't'}`)
      .filter((corner, i, all) => corner !== all[i - 1]);
    expect(corners).toHaveLength(4);
    for (const [x, y, z] of points(path))
      if (z < 0) expect(Math.max(Math.min(x, 40 - x), Math.min(y, 30 - y))).toBeLessThan(5);
    // Corners as round as the smaller bit: 4·r²(1 − π/4).
    expect(left).toBeCloseTo(4 * (1 - Math.PI / 4), 1);
  });
  test('equal pockets are cut equally, wherever they lie', () => {
    const { path } = pocket([box(0, 0, 14, 9), box(100, 50, 14, 9)], settings, clipper);
    const own = (x: number, y: number) =>
      points(path)
        .filter(([px, py, z]) => z < 0 && px > x && px < x + 14 && py > y && py < y + 9)
        .map(([px, py, z]) => [px - x, py - y, z].map((v) => Math.round(v * 1e3) / 1e3).join());
    expect(new Set(own(0, 0))).toEqual(new Set(own(100, 50)));
  });
  test.each([
    [{ step: 0 }, /step is 0/],
    [{ step: 5 }, /step is wider than the bit/],
    [{ finish: -1 }, /allowance is below 0/],
    [{ finish: 3.1 }, /more than half of the bit/],
    [{ diameter: 50 }, /wider than every place/],
    [{ entry: { kind: 'ramp', angle: 0 } } as const, /no slope/],
    [{ entry: { kind: 'helix', angle: 1 } } as const, /steeper than an end mill/],
  ])('%j gets a sentence', (change, sentence) => {
    expect(() => pocket(area, { ...settings, ...change }, clipper)).toThrow(sentence);
  });
});

describe('V-carving in passes, from a start depth, and after flat bits', () => {
  const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 10 };
  const settings: VCarveSettings = { bit, depthLimit: 20, floorStep: 0.5, ...drive, plunge: 900, rapid: 2400 };
  const carve = async (change: Partial<VCarveSettings>, ...loops: Float64Array[]) =>
    vCarve(
      await carvablesOf(
        [{ name: '', rule: 'evenodd', outlines: loops.map((p) => ({ points: p, closed: true })) }],
        clipper,
      ),
      { ...settings, ...change },
      clipper,
    );
  const slot = box(0, 0, 60, 6);
  test('passes go deeper by no more than asked, and the last to the whole depth', async () => {
    const { path, passes } = await carve({ depthPerPass: 2 }, slot);
    const whole = 3 / bit.slope;
    expect(passes).toBe(3);
    expect(-Math.min(...heights(path))).toBeCloseTo(whole, 2);
    // Until a depth is first reached, nothing goes more than a pass below what was cut before there.
    const first = heights(path).findIndex((z) => z < -whole / 3 - 0.01);
    expect(first).toBeGreaterThan(10);
    expect(Math.min(...heights(path).slice(0, first))).toBeGreaterThan(-whole / 3 - 0.01);
  });
  test('every pass keeps within the outline', async () => {
    const { path } = await carve({ depthPerPass: 1.2 }, slot);
    const edge = Clearance.ofLoops([slot]);
    for (const [x, y, z] of points(path)) if (z < 0) expect(radiusAtDepth(bit, -z)).toBeLessThan(edge.at(x, y) + 0.003);
  });
  test('a start depth is added to all that is carved', async () => {
    const top = await carve({}, slot);
    const lower = await carve({ startDepth: 1.5 }, slot);
    expect(-Math.min(...heights(lower.path)) + Math.min(...heights(top.path))).toBeCloseTo(1.5, 6);
    expect(lower.fullDepth - top.fullDepth).toBeCloseTo(1.5, 9);
  });
  test('after a flat bit only the wall and what it left are carved', async () => {
    const wide = box(0, 0, 60, 40);
    const alone = await carve({ depthLimit: 3 }, wide);
    const after = await carve({ depthLimit: 3, clearedBy: [3] }, wide);
    const length = ({ path }: { path: Path }) =>
      points(path).reduce(
        (sum, [x, y], i, all) => (i && path.feed[i] > 0 ? sum + Math.hypot(x - all[i - 1][0], y - all[i - 1][1]) : sum),
        0,
      );
    expect(length(after)).toBeLessThan(length(alone) / 4);
    expect(after.floorArea).toBeCloseTo(alone.floorArea, 6);
    // The wall is cut all the same: the corners and the sides, at full depth.
    const inset = 3 * bit.slope;
    expect(
      points(after.path).some(
        ([x, y, z]) => Math.abs(x - inset) < 0.01 && Math.abs(y - inset) < 0.01 && Math.abs(z + 3) < 1e-6,
      ),
    ).toBe(true);
  });
  test('what a flat bit reaches of a square: all but its corners', () => {
    const opened = openedBy([box(0, 0, 20, 20)], [3], clipper);
    expect(opened.reduce((sum, loop) => sum + signedArea(loop), 0)).toBeCloseTo(400 - 4 * 9 * (1 - Math.PI / 4), 1);
    expect(openedBy([box(0, 0, 5, 5)], [3], clipper)).toEqual([]);
    expect(openedBy([box(0, 0, 5, 5)], [], clipper)).toEqual([]);
  });
  test('a tip with a flat carves shallower by t/tan α, and leaves what is narrower', async () => {
    const flat = { ...bit, flat: 0.3 };
    const { path } = await carve({ bit: flat }, slot);
    expect(-Math.min(...heights(path))).toBeCloseTo((3 - 0.3) / bit.slope, 2);
    const { tooNarrow } = await carve({ bit: flat }, box(0, 0, 40, 0.5));
    expect(tooNarrow).toBeGreaterThan(39);
  });
  test.each([
    [{ startDepth: 30 }, /not below the start depth/],
    [{ depthPerPass: 0 }, /depth per pass is 0/],
    [{ depthLimit: 0 }, /depth limit is 0/],
  ])('%j gets a sentence', async (change, sentence) => {
    await expect(carve(change, slot)).rejects.toThrow(sentence);
  });
});
