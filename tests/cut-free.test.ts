import { beforeAll, describe, expect, test } from 'vitest';
import type { Clipper } from '../core/src/geometry/clipper.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { cutFree } from '../core/src/ways/cut-free.ts';

let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});

const KERF = 1;
const free = (ways: number[][], beyond = KERF / 2) => cutFree(ways, KERF, beyond, clipper);
/** Round a square of 10 mm from its lower left corner, counter-clockwise, to so far before it closes. */
const square = (open: number) => [0, 0, 10, 0, 10, 10, 0, 10, 0, open];

describe('what nothing wider than half a kerf holds', () => {
  test.each([
    [0, true],
    [1, true],
    [1.45, true],
    [1.6, false],
    [5, false],
  ])('stopped %f mm before it closes: %s', (open, is) => {
    const at = free([square(open)]);
    expect(at(5, 5)).toBe(is);
    // Beside the kerf itself, too, where it is nearer than what holds.
    expect(at(0.7, Math.max(3, open + 1))).toBe(is);
    expect(at(-5, 5)).toBe(false);
    expect(at(-0.7, 5)).toBe(false);
  });

  test('a neck between the end and the way in holds it no better', () => {
    const lead = [6, 4, 3, 2];
    expect(free([[...lead, 3, 0, 10, 0, 10, 10, 0, 10, 0, 3.3]])(5, 5)).toBe(false);
    expect(free([[0.2, 4.6, 0, 0, 10, 0, 10, 10, 0, 10, 0, 6]])(5, 8)).toBe(true);
  });

  test('a point between two lines close together is no piece that came free', () => {
    const spike = free([[0, 0, 10, 0.4, 0, 0.8]]);
    expect(spike(0, 3)).toBe(false);
    expect(spike(0.2, 0.4)).toBe(false);
  });

  test('what kerfs before it bound with it counts; what they had freed already does not', () => {
    const frame = [0, 0, 0, 20, 20, 20, 20, 0];
    expect(free([frame, [-5, 0, 19, 0]])(10, 10)).toBe(true);
    expect(
      free([
        [...frame, 0, 0],
        [5, 10, 15, 10],
      ])(10, 12),
    ).toBe(false);
    expect(free([[300, 0, 310, 0], square(1)])(5, 5)).toBe(true);
  });

  test('a stroke that was taken up is one with what was cut of it before', () => {
    // Round most of a square, stopped, and led in again from within: the neck is where it began.
    const before = [0.2, 4.6, 0, 0, 10, 0, 10, 10, 5, 10];
    const after = [4, 7, 5, 10, 4, 10];
    expect(free([before, after])(8, 3)).toBe(false);
    expect(free([[...before.slice(0, 8), 0, 10, 0, 6], [3, 8, 0, 6, 0, 5.5]])(5, 4)).toBe(true); // prettier-ignore
  });

  test('and so is one that was taken up far from what it bounds', () => {
    // Round the square but for its last millimetre, and on to where it stopped; then led in to there.
    const before = [0, 0, 10, 0, 10, 10, 0, 10, 0, 1, -20, 1];
    const after = [-20, 4, -20, 1, -25, 1];
    expect(free([before, after])(5, 5)).toBe(true);
    for (const elsewhere of [
      [-21, 4, -21, 1, -25, 1],
      [-20, 4, -20, 2, -25, 2],
    ])
      expect(free([before, elsewhere])(5, 5)).toBe(false);
  });

  test('where the controller leads the tool beside its way, kerfs reach a whole kerf', () => {
    expect(free([square(2.4)], KERF)(5, 5)).toBe(true);
    expect(free([square(2.6)], KERF)(5, 5)).toBe(false);
  });
});
