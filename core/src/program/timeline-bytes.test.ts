import { expect, test } from 'vitest';
import { timelineBytes, timelineFrom } from './timeline-bytes.ts';

test('times are read back as they were written, wherever in a buffer their bytes lie', () => {
  const whole = { minutes: Float64Array.from({ length: 120 }, (_, k) => k / 7), feeding: Float64Array.from({ length: 120 }, (_, k) => k / 9) }; // prettier-ignore
  const bytes = timelineBytes(whole);
  expect(bytes).toHaveLength(1920);
  const within = new Uint8Array(2000);
  within.set(bytes, 3);
  expect(timelineFrom(within.subarray(3, 1923))).toEqual(whole);
});
