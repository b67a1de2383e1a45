import { describe, expect, test } from 'vitest';
import { ArcLength } from '../geometry/arc-length.ts';
import { Clearance } from '../geometry/clearance.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { flatTrack } from '../motion/track.ts';
import { graft, toursAlong } from '../ways/axis-tours.ts';
import { OwnFault } from '../schema/own-fault.ts';
import { checkCarved, checkClear } from '../ways/checked.ts';
import { downAlong } from '../ways/entry.ts';
import { ringLevelsFrom } from '../ways/ring-levels.ts';
import { TabRoom } from '../ways/tab-room.ts';
import { tabAt } from '../ways/tabs.ts';
import { tightPlaces } from '../ways/tight-places.ts';

const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const lengthOf = (line: ArrayLike<number>) => {
  let sum = 0;
  for (let i = 2; i < line.length; i += 2) sum += Math.hypot(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
  return sum;
};

describe('places too tight for a rough round', () => {
  test('a square of 10 mm and an allowance of 0.2: four tours of 0.08 mm into the corners', () => {
    const { tours, ways } = tightPlaces([box(0, 0, 10, 10)], 0.2, 10);
    expect(ways).toEqual([]);
    expect(tours).toHaveLength(4);
    // On the bisector: from where the rough corner is, f·√2 from the tip, to f from it; and back.
    for (const tour of tours) expect(lengthOf(tour)).toBeCloseTo(2 * 0.2 * (Math.SQRT2 - 1), 2);
  });
  test('a channel narrower than two allowances is gone along by itself, up to one allowance from its ends', () => {
    const { tours, ways } = tightPlaces([box(0, 0, 10, 0.3)], 0.2, 1);
    expect(tours).toEqual([]);
    const all = ways.flatMap((way) => [...way].filter((_, i) => i % 2 === 0));
    expect(Math.min(...all)).toBeLessThanOrEqual(0.2);
    expect(Math.max(...all)).toBeGreaterThanOrEqual(9.8);
  });
  test('a wide place with blunt corners has none', () => {
    const round = Float64Array.from({ length: 200 }, (_, i) => {
      const a = (Math.PI * (i >> 1)) / 50;
      return 5 * (i % 2 ? Math.sin(a) : Math.cos(a));
    });
    expect(tightPlaces([round], 0.2, 10)).toEqual({ tours: [], ways: [] });
  });
});

describe('tours', () => {
  const line = { x: [0, 1, 2], y: [0, 0, 0], edges: Uint32Array.of(0, 1, 1, 2) };
  test('short lines are gone there and back from what is nearest, long ones by themselves', () => {
    expect([...toursAlong(line, (node) => node, 5).tours[0]]).toEqual([0, 0, 1, 0, 2, 0, 1, 0, 0, 0]);
    expect(toursAlong(line, (node) => node, 1.5).ways.map((way) => way.length / 2)).toEqual([3]);
  });
  test('a tour is put in where its track passes nearest, and a ring counts its points', () => {
    const [track] = graft([flatTrack(box(0, -4, 8, 4), 0, true)], [Float64Array.of(3, 0, 3, 1, 3, 0)], 0.01);
    expect(track.ring).toBe(track.xyz.length / 3);
    expect([...track.xyz].join()).toContain('3,0,0,3,0,0,3,1,0,3,0,0,3,0,0');
  });
  test('one that nothing passes is a track of its own', () => {
    expect(graft([flatTrack(box(0, 0, 8, 4), 0, true)], [Float64Array.of(30, 0, 30, 1, 30, 0)], 0.01)).toHaveLength(2);
  });
});

describe('what is looked at before it is laid', () => {
  const area = [box(0, 0, 20, 10)];
  const track = (...points: number[]) => [flatTrack(points, -1, false)];
  test('a track one radius inside passes', () => {
    expect(() => checkClear([flatTrack(box(3, 3, 14, 4), -1, true)], area, true, 3)).not.toThrow();
  });
  test.each([
    ['nearer than the radius', track(2.9, 3, 17, 3), area, true],
    ['on the wrong side', track(3, 3, 17, 3), area, false],
    [
      'past a corner that stands out',
      track(3, 6, 17, 6),
      [Float64Array.of(0, 0, 20, 0, 20, 20, 0, 20, 0, 12, 10, 8, 0, 4)],
      true,
    ],
    [
      'across a wall between two places that are wide enough',
      track(5, 5, 35, 5),
      [box(0, 0, 19, 10), box(20, 0, 20, 10)],
      true,
    ],
  ])('a track that is %s is Kerbe’s fault', (_, tracks, outline, inside) => {
    expect(() => checkClear(tracks, outline, inside, 3)).toThrow(OwnFault);
  });
  test('a cone that is wider than its groove is, too', () => {
    const bit = { flat: 0, slope: 1, radius: 6 };
    const edge = Clearance.ofLoops(area);
    expect(() => checkCarved([flatTrack([5, 5, 15, 5], -5, false)], edge, bit, 0, area)).not.toThrow();
    expect(() => checkCarved([flatTrack([5, 5, 15, 5], -5.1, false)], edge, bit, 0, area)).toThrow(
      /past the outline near/,
    );
    // Carved from a start depth on, it is as wide as what lies under that.
    expect(() => checkCarved([flatTrack([5, 5, 15, 5], -5.1, false)], edge, bit, -0.2, area)).not.toThrow();
    // Far from every wall, but on the wrong side of it.
    expect(() => checkCarved([flatTrack([-9, 5, -8, 5], -0.5, false)], edge, bit, 0, area)).toThrow(OwnFault);
  });
});

describe('ways down and tabs', () => {
  test('there and back along a line, an even number of legs, and ending where it begins', () => {
    // 1 mm down at a run of 25 on a line of 10: four legs of 6.25.
    const way = downAlong([0, 0, -1, 10, 0, -1], 0, 25)!;
    const x = way.filter((_, i) => i % 3 === 0);
    expect(Math.max(...x)).toBeCloseTo(6.25, 9);
    expect(way.slice(-3)).toEqual([0, 0, -1]);
    expect(downAlong([5, 5, -1, 5, 5, -1], 0, 25)).toBeUndefined();
    // However long the line is, only what is gone along of it counts as shallow.
    const long = Float64Array.from({ length: 450_000 }, (_, i) => [Math.floor(i / 3) / 10, 0, -1][i % 3]);
    expect(downAlong(long, 0, 40)).toHaveLength(2 * 3 * 201);
    expect(() => downAlong([0, 0, -1, 0.01, 0, -1], 0, 1000)).toThrow('so shallow');
  });
  test('a tab stands on a long side, and not where the next slot takes its outer half', () => {
    const [near, far] = [new ArcLength(box(0, 0, 60, 20)), new ArcLength(box(0, 22, 60, 20))];
    const room = new TabRoom([near, far], 3);
    const bottom = tabAt(near.loop, 30, 12, near);
    const top = tabAt(near.loop, 60 + 20 + 30, 12, near);
    expect(room.stands(0, bottom)).toBe('whole');
    expect(room.stands(0, top)).toBe('no');
  });
  test('however narrow what passes by a tab is: past its end half of it stands, past its middle not even that', () => {
    const edge = new ArcLength(box(0, 0, 60, 20));
    // A tab of 20 mm with the bit of 1 mm, from 20 to 40, and a slit's end beside it.
    const stands = (x: number) => new TabRoom([edge, new ArcLength(box(x - 0.05, -5, 0.1, 5))], 0.5).stands(0, tabAt(edge.loop, 30, 21, edge)); // prettier-ignore
    for (const x of [20, 21, 22, 23, 24, 36.5, 38, 40]) expect([x, stands(x)]).toEqual([x, 'half']);
    for (const x of [26, 27, 28, 29, 30, 31.5, 33, 34]) expect([x, stands(x)]).toEqual([x, 'no']);
    for (const x of [15, 18, 42, 45]) expect([x, stands(x)]).toEqual([x, 'whole']);
  });
});

test('a place that is wider than the bit by a micrometre has its ring, however small', () => {
  const tiny = Float64Array.of(30, 5, 30.011, 5.012, 30.0013, 5.0018);
  const [first] = ringLevelsFrom([box(0, 0, 20, 10), tiny], 1, clipper);
  expect(first).toHaveLength(2);
  expect([...first[1]]).toEqual([...tiny]);
});
