import { describe, expect, test } from 'vitest';
import { handlesInHand, MOST_HANDLES, ordinals } from './handles-in-hand.ts';

const frame = { k: 2, left: 50, base: 500 };
const seen = { width: 800, height: 600 };
/** A row of places, 1 mm apart, at one height. */
const row = (count: number) => Array.from({ length: count }, (_, i) => ({ x: i, y: 30 }));

describe('handles that can be taken', () => {
  test('few are all, in sight or not', () => {
    expect(handlesInHand(row(MOST_HANDLES), { ...frame, left: -5000 }, seen)).toHaveLength(MOST_HANDLES);
  });

  test('of many those in sight', () => {
    // 50 + 2 x from -40 to 840 px: x from 0 to 395.
    expect(handlesInHand(row(3000), frame, seen)).toEqual([...Array(396).keys()]);
    // At ten times the size 40 + 840 px hold 45 of them.
    const near = handlesInHand(row(3000), { k: 20, left: -20_000, base: 1000 }, seen);
    expect(near![0]).toBe(998);
    expect(near!.at(-1)).toBe(1042);
  });

  test('of many out of sight in height none', () => {
    expect(handlesInHand(row(3000), { ...frame, base: -1000 }, seen)).toEqual([]);
  });

  test('too many in sight: none', () => {
    expect(handlesInHand(row(3000), { ...frame, k: 0.2 }, seen)).toBeUndefined();
  });
});

test('a handle is counted among those of its word', () => {
  expect(ordinals(['tab', 'tab', 'start', 'tab', 'start'])).toEqual([1, 2, 1, 3, 2]);
});
