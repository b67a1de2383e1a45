import { expect, test } from 'vitest';
import { areaRows } from './area-rows.ts';

const triangle = [Float64Array.of(0, 0, 10, 0, 0, 10)];
const at = (area: Float64Array[], angle: number, pitch: number) =>
  areaRows(area, angle, pitch, 0.5).map(({ v, at: ends, power }) => [
    v,
    ...Array.from(ends, (u) => Math.round(u * 1e6) / 1e6),
    ...power,
  ]);

test('lines lie as far from one side as from the other, and end at the outline', () => {
  // 10 mm high: three lines 4 mm apart would be 8 mm, so 1 mm is left above and below two of them.
  expect(at(triangle, 0, 4)).toEqual([[3, 0, 7, 0.5], [7, 0, 3, 0.5]]); // prettier-ignore
});

test('along another direction they lie across it', () => {
  // Upright lines go from u = 0 up; v is -x.
  expect(at(triangle, Math.PI / 2, 4)).toEqual([[-7, 0, 3, 0.5], [-3, 0, 7, 0.5]].map((row) => row.map((n) => expect.closeTo(n, 6)))); // prettier-ignore
});

test('the beam is off over a hole', () => {
  const area = [Float64Array.of(0, 0, 10, 0, 10, 2, 0, 2), Float64Array.of(4, 0.5, 4, 1.5, 6, 1.5, 6, 0.5)];
  expect(at(area, 0, 2)).toEqual([[1, 0, 4, 6, 10, 0.5, 0, 0.5]]);
});

test('what is as high as a line is wide gets one in its middle, nothing gets none', () => {
  expect(at([Float64Array.of(0, 0, 5, 0, 5, 0.1, 0, 0.1)], 0, 0.2)).toEqual([[0.05, 0, 5, 0.5]]);
  expect(areaRows([], 0, 1, 1)).toEqual([]);
});

test('gaps and stretches shorter than 5 µm are none', () => {
  const thin = (from: number, to: number) => Float64Array.of(from, 0, to, 0, to, 1, from, 1);
  expect(at([thin(0, 4), thin(4.004, 8), thin(9, 9.004)], 0, 2)).toEqual([[0.5, 0, 8, 0.5]]);
  expect(at([thin(0, 4), thin(4.006, 8)], 0, 2)).toEqual([[0.5, 0, 4, 4.006, 8, 0.5, 0, 0.5]]);
});
