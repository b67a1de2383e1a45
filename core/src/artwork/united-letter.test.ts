import { describe, expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { coveredBy, lengthOf, type Outline } from '../geometry/outline.ts';
import { unitedLetter } from './united-letter.ts';

/** A bar from one corner to the opposite one; backwards where the second lies below the first. */
const bar = (x0: number, y0: number, x1: number, y1: number): Outline => ({
  points: Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1),
  closed: true,
  nodes: 4,
});
const reversed = ({ points, ...rest }: Outline): Outline => {
  const corners = Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]);
  return { ...rest, points: Float64Array.from(corners.reverse().flat()) };
};

describe('strokes of a letter', () => {
  test('two that overlap are gone round as one', () => {
    const united = unitedLetter([bar(0, 10, 12, 12), bar(5, 0, 7, 11)], clipper)!;
    expect(united).toHaveLength(1);
    expect(united[0].points).toHaveLength(2 * 8);
    // 12 × 2 + 2 × 10, and round it 12 + 2 + 5 + 10 + 2 + 10 + 5 + 2.
    expect(coveredBy(united.map(({ points }) => points))).toBeCloseTo(44, 6);
    expect(lengthOf(united[0])).toBeCloseTo(48, 6);
    expect(united[0].nodes).toBe(8);
  });

  test('whichever way they are drawn round', () => {
    const united = unitedLetter([reversed(bar(0, 10, 12, 12)), reversed(bar(5, 0, 7, 11))], clipper)!;
    expect(united.map((outline) => lengthOf(outline))).toEqual([expect.closeTo(48, 6)]);
  });

  test('four that close round a counter leave it open', () => {
    const united = unitedLetter([bar(0, 0, 30, 4), bar(0, 0, 5, 20), bar(0, 17, 30, 20), bar(24, 0, 30, 20)], clipper)!;
    expect(united.map(({ points }) => coveredBy([points])).sort((a, b) => a - b)).toEqual([
      expect.closeTo(-19 * 13, 6),
      expect.closeTo(600, 6),
    ]);
  });

  test('a letter with a counter, and dots beside each other, stay as they are drawn', () => {
    expect(unitedLetter([bar(0, 0, 30, 20), reversed(bar(5, 4, 24, 17))], clipper)).toBeUndefined();
    expect(unitedLetter([bar(0, 0, 30, 20), bar(31, 0, 33, 7)], clipper)).toBeUndefined();
  });

  test.each([0.02, 1, 400])('%d times the size', (times) => {
    const sized = (outline: Outline): Outline => ({ ...outline, points: outline.points.map((v) => v * times) });
    expect(unitedLetter([bar(0, 10, 12, 12), bar(5, 0, 7, 11)].map(sized), clipper)).toHaveLength(1);
    expect(unitedLetter([bar(0, 0, 30, 20), reversed(bar(5, 4, 24, 17))].map(sized), clipper)).toBeUndefined();
  });
});
