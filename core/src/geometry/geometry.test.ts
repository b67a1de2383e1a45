import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyTo, compose, IDENTITY, scale, shift, turn } from './affine.ts';
import { ArcLength } from './arc-length.ts';
import { boxGroups } from './box-groups.ts';
import { Clearance } from './clearance.ts';
import { clipper } from './clipper-for-tests.ts';
import { flattenCubic, flattenQuadratic, FLATTENING_TOLERANCE } from './flatten.ts';
import { boundsOf, contains, lengthOf, signedArea } from './outline.ts';
import { partTouching, regionOutline } from './region-outline.ts';
import { regionsOf } from './regions.ts';
import { shapeKey, shiftLoops } from './same-shape.ts';
import { Sides } from './sides.ts';
import { insideArea, stretchesOf } from './stretches.ts';

const square = (x: number, y: number, s: number) => Float64Array.of(x, y, x + s, y, x + s, y + s, x, y + s);
const reversed = (loop: Float64Array) =>
  Float64Array.from(
    Array.from({ length: loop.length / 2 }, (_, i) => [...loop.slice(-2 * i - 2, -2 * i || undefined)]).flat(),
  );
const circle = (x: number, y: number, r: number, n = 720) =>
  Float64Array.from(
    Array.from({ length: n }, (_, i) => [
      x + r * Math.cos((2 * Math.PI * i) / n),
      y + r * Math.sin((2 * Math.PI * i) / n),
    ]).flat(),
  );
const areaSum = (loops: Float64Array[]) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);

describe('affine maps', () => {
  const points = fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 2, maxLength: 2 });
  test('one after the other is their composition', () => {
    fc.assert(
      fc.property(
        points,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        (p, a, k) => {
          const point = Float64Array.from(p);
          const first = turn(a);
          const second = compose(scale(k, 2 * k), shift(3, -4));
          const both = applyTo(compose(first, second), point);
          const inTurn = applyTo(second, applyTo(first, point));
          for (const i of [0, 1]) expect(both[i]).toBeCloseTo(inTurn[i], 9);
        },
      ),
    );
  });
  test('nothing, a quarter turn, a shift', () => {
    expect([...applyTo(IDENTITY, Float64Array.of(3, 4))]).toEqual([3, 4]);
    const [x, y] = applyTo(turn(Math.PI / 2), Float64Array.of(1, 0));
    expect([x, y].map((v) => Math.round(v * 1e12) / 1e12)).toEqual([0, 1]);
    expect([...applyTo(shift(1, 2), Float64Array.of(0, 0))]).toEqual([1, 2]);
  });
});

describe('outlines', () => {
  test('area, length and box of a square, either way round', () => {
    expect(signedArea(square(2, 3, 4))).toBe(16);
    expect(signedArea(reversed(square(2, 3, 4)))).toBe(-16);
    expect(lengthOf({ points: square(2, 3, 4), closed: true })).toBe(16);
    expect(lengthOf({ points: square(2, 3, 4), closed: false })).toBe(12);
    expect(boundsOf([{ points: square(2, 3, 4) }])).toEqual({ minX: 2, minY: 3, maxX: 6, maxY: 7 });
    expect(boundsOf([])).toBeUndefined();
  });
  test('a point is inside a square where its coordinates say so', () => {
    for (let x = -2.5; x < 13; x++)
      for (let y = -2.5; y < 13; y++) expect(contains(square(0, 0, 10), x, y)).toBe(x > 0 && x < 10 && y > 0 && y < 10);
  });
});

describe('flattening', () => {
  // The distance between a curve and its chords, sampled a hundred times a chord.
  const worst = (chords: number[], at: (t: number) => [number, number]) => {
    let most = 0;
    for (let k = 0; k <= 4000; k++) {
      const [x, y] = at(k / 4000);
      let nearest = Infinity;
      for (let i = 2; i < chords.length; i += 2) {
        const [ax, ay, bx, by] = chords.slice(i - 2, i + 2);
        const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
        const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l2)) : 0;
        nearest = Math.min(nearest, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
      }
      most = Math.max(most, nearest);
    }
    return most;
  };
  test('a cubic stays within the tolerance', () => {
    const p = [0, 0, 5, 20, 25, -10, 30, 8];
    const out = [p[0], p[1]];
    flattenCubic(out, p[0], p[1], p[2], p[3], p[4], p[5], p[6], p[7], FLATTENING_TOLERANCE);
    const bezier = (t: number): [number, number] => {
      const b = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
      return [0, 1].map((k) => b.reduce((sum, v, i) => sum + v * p[2 * i + k], 0)) as [number, number];
    };
    expect(worst(out, bezier)).toBeLessThan(FLATTENING_TOLERANCE);
    expect(out.length / 2).toBeLessThan(400);
  });
  test('a quadratic too, and a straight one is one chord', () => {
    const out = [0, 0];
    flattenQuadratic(out, 0, 0, 10, 20, 30, 0, FLATTENING_TOLERANCE);
    expect(worst(out, (t) => [20 * t * (1 - t) + 30 * t * t, 40 * t * (1 - t)])).toBeLessThan(FLATTENING_TOLERANCE);
    const line = [0, 0];
    flattenCubic(line, 0, 0, 1, 1, 2, 2, 3, 3, FLATTENING_TOLERANCE);
    expect(line).toEqual([0, 0, 3, 3]);
  });
});

describe('clearance', () => {
  test('the distance to the nearest segment, as found by trying all', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 50, noNaN: true }), fc.double({ min: 0, max: 50, noNaN: true })), {
          minLength: 3,
          maxLength: 40,
        }),
        fc.double({ min: -20, max: 70, noNaN: true }),
        fc.double({ min: -20, max: 70, noNaN: true }),
        (points, x, y) => {
          const loop = Float64Array.from(points.flat());
          let least = Infinity;
          for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2) {
            const dx = loop[i] - loop[j];
            const dy = loop[i + 1] - loop[j + 1];
            const l2 = dx * dx + dy * dy;
            const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - loop[j]) * dx + (y - loop[j + 1]) * dy) / l2)) : 0;
            least = Math.min(least, Math.hypot(x - loop[j] - t * dx, y - loop[j + 1] - t * dy));
          }
          const clearance = Clearance.ofLoops([loop]);
          expect(clearance.at(x, y)).toBeCloseTo(least, 9);
          expect(Math.hypot(x - clearance.footX, y - clearance.footY)).toBeCloseTo(least, 9);
        },
      ),
      { numRuns: 150, seed: 2 },
    );
  });
});

describe('booleans and offsets', () => {
  test('areas by inclusion and exclusion', () => {
    const [a, b] = [square(0, 0, 10), square(6, 4, 10)];
    const overlap = 4 * 6;
    expect(areaSum(clipper.union([a, b], 'nonzero'))).toBeCloseTo(200 - overlap, 6);
    expect(areaSum(clipper.union([a, b], 'evenodd'))).toBeCloseTo(200 - 2 * overlap, 6);
    expect(areaSum(clipper.intersection([a], [b]))).toBeCloseTo(overlap, 6);
    expect(areaSum(clipper.difference([a], [b]))).toBeCloseTo(100 - overlap, 6);
  });
  test('a square grown by r: s² + 4·s·r + π·r², shrunk: (s − 2r)²', () => {
    expect(areaSum(clipper.offset([square(0, 0, 10)], 2))).toBeCloseTo(100 + 80 + Math.PI * 4, 1);
    expect(areaSum(clipper.offset([square(0, 0, 10)], -2))).toBeCloseTo(36, 6);
    expect(clipper.offset([square(0, 0, 10)], -5.1)).toEqual([]);
  });
  test('equal letters of a page come out equal, one by one as together', () => {
    const letters = Array.from({ length: 40 }, (_, k) => [...square(20 * k, 3 * k, 10)]).map((l) =>
      Float64Array.from(l),
    );
    const grown = clipper.offset(letters, 1.5);
    expect(grown).toHaveLength(40);
    const own = signedArea(clipper.offset([letters[0]], 1.5)[0]);
    for (const loop of grown) expect(signedArea(loop)).toBeCloseTo(own, 6);
  });
  test('loops near enough to meet are grown together', () => {
    const pair = [square(0, 0, 10), square(12, 0, 10)];
    expect(clipper.offset(pair, 0.9)).toHaveLength(2);
    expect(clipper.offset(pair, 1.1)).toHaveLength(1);
    const many = Array.from({ length: 14 }, (_, k) => square(12 * k, 0, 10));
    expect(clipper.offset(many, 1.1)).toHaveLength(1);
    expect(clipper.offset(many, 0.9)).toHaveLength(14);
  });
  test('simplifying keeps within its tolerance', () => {
    const round = circle(0, 0, 10, 2000);
    const [simple] = clipper.simplify([round], 0.01);
    expect(simple.length).toBeLessThan(round.length / 4);
    const edge = Clearance.ofLoops([simple]);
    for (let i = 0; i < round.length; i += 2) expect(edge.at(round[i], round[i + 1])).toBeLessThan(0.011);
  });
});

describe('regions and groups', () => {
  test('holes go to the smallest outer loop around them', () => {
    const regions = regionsOf([
      square(0, 0, 100),
      reversed(square(10, 10, 80)),
      square(20, 20, 40),
      reversed(square(30, 30, 5)),
      reversed(square(92, 2, 3)),
    ]);
    expect(regions.map(({ loops }) => loops.length).sort()).toEqual([2, 3]);
    const inner = regions.find(({ loops }) => loops.length === 2)!;
    expect(inner.bounds).toEqual({ minX: 20, minY: 20, maxX: 60, maxY: 60 });
  });
  test('a hole that an island touches in a corner belongs to the loop around it', () => {
    const regions = regionsOf([
      square(-5, -5, 30),
      reversed(square(0, 0, 10)),
      Float64Array.of(0, 0, 3, 1, 1, 3),
      Float64Array.of(10, 10, 7, 9, 9, 8),
      Float64Array.of(0, 10, 2, 6, 4, 9),
    ]);
    expect(regions.map(({ loops }) => loops.length).sort()).toEqual([1, 1, 1, 2]);
    expect(regions.find(({ loops }) => loops.length === 2)!.bounds.maxX).toBe(25);
  });
  test('boxes are grouped by way of others, and within a margin', () => {
    const box = (x: number) => ({ minX: x, minY: 0, maxX: x + 10, maxY: 10 });
    expect(boxGroups([box(0), box(8), box(16), box(40)])).toEqual([[0, 1, 2], [3]]);
    expect(boxGroups([box(0), box(12)])).toEqual([[0], [1]]);
    expect(boxGroups([box(0), box(12)], 2)).toEqual([[0, 1]]);
    expect(boxGroups([])).toEqual([]);
    const above = (y: number) => ({ minX: 0, minY: y, maxX: 10, maxY: y + 10 });
    expect([boxGroups([above(0), above(12)], 1.9), boxGroups([above(12), above(0)], 1.9)]).toEqual([[[0], [1]], [[0], [1]]]); // prettier-ignore
    expect([boxGroups([above(0), above(12)], 2), boxGroups([above(12), above(0)], 2)]).toEqual([[[0, 1]], [[0, 1]]]);
  });
  test('the key of a shape is the same wherever it lies, and another for another shape', () => {
    const shape = [circle(3, 4, 2, 30)];
    const [moved] = [shiftLoops(shape, 123.456, -7.89)];
    expect(shapeKey(moved, 123.456, -7.89)).toBe(shapeKey(shape, 0, 0));
    expect(shapeKey([circle(3, 4, 2.001, 30)], 0, 0)).not.toBe(shapeKey(shape, 0, 0));
  });
});

describe('a region’s vertices', () => {
  const region = (...loops: Float64Array[]) => ({ loops, bounds: boundsOf(loops.map((points) => ({ points })))! });
  test('turns are positive at convex corners, and add up to one turn', () => {
    const { turn: turns, count, next, previous } = regionOutline(region(square(0, 0, 10)));
    expect(count).toBe(4);
    expect([...turns].reduce((a, b) => a + b)).toBeCloseTo(2 * Math.PI, 9);
    for (let i = 0; i < count; i++) expect(previous[next[i]]).toBe(i);
  });
  test('points that repeat their neighbour, and loops of two points, are left out', () => {
    const doubled = Float64Array.of(0, 0, 0, 0, 10, 0, 10, 10, 0, 10, 0, 0);
    expect(regionOutline(region(doubled, Float64Array.of(1, 1, 2, 2))).count).toBe(4);
  });
  test('a vertex that lies on another edge is moved into the region by a micrometre', () => {
    const outline = regionOutline(region(square(0, 0, 10), Float64Array.of(5, 0, 3, 3, 5, 6, 7, 3)));
    expect(partTouching(outline, 0.001)).toBe(1);
    const touching = [...outline.x].findIndex((x, i) => x === 5 && outline.y[i] < 1);
    expect(outline.y[touching]).toBeCloseTo(0.001, 9);
    expect(partTouching(outline, 0.001)).toBe(0);
  });
});

describe('stretches of a loop', () => {
  const area = [square(0, 0, 10)];
  const length = (points: number[]) => lengthOf({ points: Float64Array.from(points), closed: false });
  test('inside and outside together are the whole loop', () => {
    const loop = square(5, 5, 10);
    const inside = stretchesOf(loop, area, true);
    const outside = stretchesOf(loop, area, false);
    expect(inside).toHaveLength(1);
    expect(outside).toHaveLength(1);
    expect(length(inside[0].points)).toBeCloseTo(10, 1);
    expect(length(inside[0].points) + length(outside[0].points)).toBeCloseTo(40, 1);
  });
  test('a loop that never leaves comes back whole, one that never enters not at all', () => {
    const [whole, ...more] = stretchesOf(square(2, 2, 4), area, true);
    expect(whole.whole).toBe(true);
    expect(more).toEqual([]);
    expect(stretchesOf(square(20, 20, 4), area, true)).toEqual([]);
    expect(stretchesOf(square(2, 2, 4), [], false)[0].whole).toBe(true);
    expect(stretchesOf(square(2, 2, 4), [], true)).toEqual([]);
  });
  test('cut at the edge to a hundredth of a millimetre', () => {
    const [{ points }] = stretchesOf(square(5, 5, 10), area, true);
    const ends = [points.slice(0, 2), points.slice(-2)];
    for (const [x, y] of ends) expect(Math.min(Math.abs(x - 10), Math.abs(y - 10))).toBeLessThan(0.01);
  });
  test('several stretches, and holes count as outside', () => {
    const ringed = [square(0, 0, 30), reversed(square(10, 10, 10))];
    expect(insideArea(ringed, 15, 15)).toBe(false);
    expect(insideArea(ringed, 5, 5)).toBe(true);
    const across = Float64Array.of(5, 14, 25, 14, 25, 16, 5, 16);
    const found = stretchesOf(across, ringed, true);
    expect(found).toHaveLength(2);
    const total = found.reduce((sum, { points }) => sum + length(points), 0);
    expect(total).toBeCloseTo(4 * 5 + 2 * 2, 1);
  });
});

describe('distance along a loop', () => {
  const measured = new ArcLength(square(0, 0, 10));
  test('places, directions and turns', () => {
    expect(measured.total).toBe(40);
    expect(measured.pointAt(15)).toEqual({ x: 10, y: 5, dx: 0, dy: 1 });
    expect(measured.pointAt(55)).toEqual(measured.pointAt(15));
    expect(measured.pointAt(-5)).toMatchObject({ x: 0, y: 5 });
    expect(measured.wrap(-5)).toBe(35);
  });
  test('at a corner the way goes on, it does not come from where it came', () => {
    const oblong = new ArcLength(Float64Array.of(0, 0, 30, 0, 30, 12, 0, 12));
    const onward = [
      [0, 1, 0],
      [30, 0, 1],
      [42, -1, 0],
      [72, 0, -1],
      [84, 1, 0],
    ];
    for (const [s, dx, dy] of onward) expect(oblong.pointAt(s)).toMatchObject({ dx, dy });
    expect(onward.map(([s]) => oblong.segmentAt(s))).toEqual([0, 1, 2, 3, 0]);
  });
  test('the nearest place is the nearest', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 15, noNaN: true }),
        fc.double({ min: -5, max: 15, noNaN: true }),
        (x, y) => {
          const at = measured.pointAt(measured.nearest(x, y));
          const least = Clearance.ofLoops([square(0, 0, 10)]).at(x, y);
          expect(Math.hypot(at.x - x, at.y - y)).toBeCloseTo(least, 6);
        },
      ),
    );
  });
});

test('sides told by rows are those told by every edge', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), { minLength: 3, maxLength: 60 }), { minLength: 1, maxLength: 4 }),
      fc.array(fc.tuple(fc.double({ min: -60, max: 60, noNaN: true }), fc.integer({ min: -51, max: 51 })), { minLength: 20, maxLength: 40 }),
      (loops, places) => {
        const area = loops.map((loop) => Float64Array.from(loop.flat()));
        const sides = new Sides(area);
        for (const [x, y] of places) expect(sides.inside(x, y)).toBe(insideArea(area, x, y));
      },
    ),
    { numRuns: 200, seed: 5 },
  );
}); // prettier-ignore
