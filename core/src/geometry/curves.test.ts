import { describe, expect, test } from 'vitest';
import { checkMoves } from '../motion/too-many-moves.ts';
import { capsules, thinned } from './capsules.ts';
import { distanceToSegment } from './distance-to-segment.ts';
import { arcCentre, flattenArc } from './elliptical-arc.ts';
import { signedArea } from './outline.ts';
import { refitLoop } from './refit.ts';

describe('an elliptical arc, by the equation of its ellipse', () => {
  // A quarter and three quarters of the ellipse round (7, −3), 5 and 2 mm, turned by 30°: x = c + R(5 cos t, 2 sin t).
  const turn = Math.PI / 6;
  const on = (t: number) => {
    const [u, v] = [5 * Math.cos(t), 2 * Math.sin(t)];
    return [7 + u * Math.cos(turn) - v * Math.sin(turn), -3 + u * Math.sin(turn) + v * Math.cos(turn)];
  };
  test.each([
    ['the short way, counter-clockwise', 0, Math.PI / 2, false, true],
    ['the long way, clockwise', 0, -1.5 * Math.PI, true, false],
    ['the long way, counter-clockwise', 0.3, 4.6, true, true],
    ['the short way, clockwise', 2, -1, false, false],
  ])('%s', (_, from, sweep, large, counter) => {
    const [[x1, y1], [x2, y2]] = [on(from), on(from + sweep)];
    const arc = arcCentre(x1, y1, 5, 2, turn, large, counter, x2, y2)!;
    expect([arc.cx, arc.cy, arc.sweep]).toEqual([7, -3, sweep].map((v) => expect.closeTo(v, 9)));
    const points: number[] = [];
    flattenArc(points, arc, 0.01);
    const n = points.length / 2;
    for (let k = 0; k < n; k++) {
      const [x, y] = on(from + (sweep * (k + 1)) / n);
      expect([points[2 * k], points[2 * k + 1]]).toEqual([expect.closeTo(x, 9), expect.closeTo(y, 9)]);
    }
  });
  test('radii that are too small grow until they reach, and ends in one place are no arc', () => {
    expect(arcCentre(0, 0, 1, 0.5, 0, false, true, 10, 0)).toMatchObject({ rx: 5, ry: 2.5, cx: 5, cy: 0 });
    expect(arcCentre(3, 3, 1, 1, 0, false, true, 3, 3)).toBeUndefined();
  });
});

describe('ways as wide as a disc', () => {
  test('each piece covers its stretch and both round ends', () => {
    const pieces = capsules([0, 0, 10, 0, 10, 8], 1);
    expect(pieces).toHaveLength(2);
    for (const [k, length] of [10, 8].entries()) {
      // Twelve chords for a round of two halves: their area is 12·sin(30°)/2 instead of π.
      expect(signedArea(pieces[k])).toBeCloseTo(2 * length + 3, 9);
    }
  });
  test('thinned, a way strays no further than allowed, and its ends stay', () => {
    const way = Array.from({ length: 400 }, (_, k) => (k % 2 ? 3 * Math.sin(k / 40) + 0.005 * (k % 3) : k / 10));
    const thin = thinned(way, 0.03);
    expect(thin.length).toBeLessThan(way.length / 4);
    expect([...thin.slice(0, 2), ...thin.slice(-2)]).toEqual([...way.slice(0, 2), ...way.slice(-2)]);
    for (let k = 0; k < way.length; k += 2) {
      let near = Infinity;
      for (let i = 2; i < thin.length; i += 2)
        near = Math.min(near, distanceToSegment(way[k], way[k + 1], thin[i - 2], thin[i - 1], thin[i], thin[i + 1]));
      expect(near).toBeLessThanOrEqual(0.03 + 1e-12);
    }
    // One spike is kept, however long the rest is straight.
    expect(thinned([0, 0, 5, 0, 6, 4, 7, 0, 12, 0], 0.03)).toEqual([0, 0, 5, 0, 6, 4, 7, 0, 12, 0]);
  });
});

test('a triangle is not drawn anew', () => {
  const loop = Float64Array.of(0, 0, 30, 0, 15, 20);
  expect(refitLoop(loop, 0.5, 40)).toEqual({ loop, nodes: 40, off: 0 });
});

test.each([
  [3_000_000, undefined],
  [3_000_001, 'about 4 million'],
  [8e6, 'about 8 million'],
  [1.5e12, 'countless'],
  [Infinity, 'countless'],
])('%d moves', (moves, said) => {
  if (said === undefined) expect(() => checkMoves(moves, 'step')).not.toThrow();
  else expect(() => checkMoves(moves, 'step')).toThrow(`With this step the cut would have ${said} moves, and 3 million are the most; make the step larger`); // prettier-ignore
});
