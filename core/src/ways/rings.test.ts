import { expect, test } from 'vitest';
import { nestRings } from './rings.ts';

const at = (xyz: ArrayLike<number>) => Array.from({ length: xyz.length / 3 }, (_, k) => [xyz[3 * k], xyz[3 * k + 1]]);

test('a ring is left for the next outer one only where the way over stays in what is cut', () => {
  // Two arms with a slit between them; the vertex nearest to the ring in the left arm lies across the slit.
  const arms = Float64Array.of(0, 0, 22, 0, 22, 100, 12, 100, 12, 50, 12, 10, 10, 10, 10, 100, 0, 100);
  const ring = Float64Array.of(8, 50, 4, 52, 4, 48);
  const tracks = nestRings([[arms], [ring]], -1);
  expect(tracks).toHaveLength(2);
  expect(at(tracks[0].xyz)).toEqual([[8, 50], [4, 52], [4, 48], [8, 50]]); // prettier-ignore
  expect(tracks[0]).toMatchObject({ closed: true, ring: 4 });
  expect(tracks[1].xyz).toHaveLength(3 * 10);
  expect(tracks[1]).toMatchObject({ closed: true, ring: 10 });
});

test('where it does, both are one track, the inner first, and the outer begins at its nearest vertex', () => {
  const square = Float64Array.of(0, 0, 20, 0, 20, 20, 0, 20);
  const inner = Float64Array.of(12, 12, 8, 12, 8, 8, 12, 8);
  const [track, ...others] = nestRings([[square], [inner]], -1);
  expect(others).toEqual([]);
  expect(at(track.xyz)).toEqual([[12, 12], [8, 12], [8, 8], [12, 8], [12, 12], [20, 20], [0, 20], [0, 0], [20, 0], [20, 20]]); // prettier-ignore
  expect(track).toMatchObject({ closed: false, ring: 5, oneWay: true });
});

test('conventional goes the other way round', () => {
  const inner = Float64Array.of(12, 12, 8, 12, 8, 8, 12, 8);
  const [track] = nestRings([[inner]], -1, { climb: false });
  expect(at(track.xyz)).toEqual([[12, 12], [12, 8], [8, 8], [8, 12], [12, 12]]); // prettier-ignore
});
