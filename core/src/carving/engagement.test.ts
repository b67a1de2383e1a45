import { describe, expect, test } from 'vitest';
import { type Path, PathBuilder } from '../motion/path.ts';
import { engagementOf } from './engagement.ts';

/** Straight cuts 2 mm deep, each plunged into at its beginning. */
function cuts(...lines: (readonly [number, number, number, number])[]): Path {
  const builder = new PathBuilder();
  for (const [ax, ay, bx, by] of lines) {
    builder.rapid(ax, ay, 5);
    builder.to(ax, ay, -2, 300);
    builder.to(bx, by, -2, 1000);
    builder.rapid(bx, by, 5);
  }
  return builder.done();
}

describe('how wide the wood is that a bit meets', () => {
  test('a line into solid wood is a slot all along', () => {
    const { length, slots } = engagementOf(cuts([0, 0, 100, 0]), 3, -2);
    expect(length).toBeCloseTo(100, 0);
    expect(slots).toBeCloseTo(100, 0);
  });
  test('a line beside a cut, less than the bit away, is none', () => {
    const { length, slots } = engagementOf(cuts([0, 0, 100, 0], [0, 2.4, 100, 2.4]), 3, -2);
    expect(length).toBeCloseTo(200, 0);
    expect(slots).toBeCloseTo(100, 0);
  });
  test('a line further off than the bit is wide is a slot of its own', () => {
    expect(engagementOf(cuts([0, 0, 100, 0], [0, 6.5, 100, 6.5]), 3, -2).slots).toBeCloseTo(200, 0);
  });
  test('the same line again meets no wood', () => {
    expect(Math.abs(engagementOf(cuts([0, 0, 100, 0], [100, 0, 0, 0]), 3, -2).length - 100)).toBeLessThan(1);
  });
  test('a cut shorter than the bit is wide is no slot', () => {
    expect(engagementOf(cuts([0, 0, 5, 0]), 3, -2)).toEqual({ length: expect.closeTo(5, 0), slots: 0 });
  });
  test('what a larger bit has cut before is no wood', () => {
    const before = [{ path: cuts([0, 0, 100, 0]), radius: 6 }];
    expect(engagementOf(cuts([0, 2, 100, 2]), 3, -2, before)).toEqual({ length: 0, slots: 0 });
    // A line on from there: a slot from where the larger bit's round end leaves off.
    expect(engagementOf(cuts([0, 0, 160, 0]), 3, -2, before).slots).toBeCloseTo(160 - 100 - 6 + 3, -0.5);
  });
  test('what is cut at other depths does not count, and a path above all is nothing', () => {
    expect(engagementOf(cuts([0, 0, 100, 0]), 3, -4)).toEqual({ length: 0, slots: 0 });
  });
});
