import { expect, test } from 'vitest';
import { minutesUntil } from './timeline.ts';
import { timelineBytes, timelineFrom } from './timeline-bytes.ts';

test('times are read back as they were written, wherever in a buffer their bytes lie', () => {
  const lines = 121;
  const whole = {
    minutes: Float64Array.from({ length: lines }, (_, k) => k / 7),
    others: [50, 200].map((percent) => ({
      percent,
      minutes: Float32Array.from({ length: lines }, (_, k) => (k * 100) / percent / 9),
    })),
  };
  const bytes = timelineBytes(whole);
  expect(bytes).toHaveLength(8 * 4 + 8 * lines + 2 * 4 * lines);
  const within = new Uint8Array(bytes.length + 20);
  within.set(bytes, 3);
  expect(timelineFrom(within.subarray(3, 3 + bytes.length))).toEqual(whole);
});

test('those of before are read as what they meant: a feed that goes with one over the override', () => {
  const old = Float64Array.of(0, 1, 3, 0, 0.5, 2);
  const read = timelineFrom(new Uint8Array(old.buffer));
  expect([...read.minutes]).toEqual([0, 1, 3]);
  expect(minutesUntil(read, 3, 100)).toBe(3);
  expect(minutesUntil(read, 3, 200)).toBeCloseTo(2, 9);
  expect(minutesUntil(read, 2, 50)).toBeCloseTo(1.5, 9);
  // Between those that are planned, too.
  expect(minutesUntil(read, 3, 80)).toBeCloseTo(1 + 2 / 0.8, 9);
});
