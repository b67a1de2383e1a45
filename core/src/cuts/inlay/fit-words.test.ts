import { expect, test } from 'vitest';
import { fitWords, measuredFit } from './fit-words.ts';

test.each([
  [0.059, 0.061, 'gap 0.059 to 0.061 mm a side'],
  [0.06, 0.0601, 'gap 0.06 mm a side'],
  [-0.061, -0.059, 'press 0.059 to 0.061 mm a side'],
  [-0.05, -0.05, 'press 0.05 mm a side'],
  [-0.002, 0.003, 'press 0.002 to gap 0.003 mm a side'],
  [-0.0001, 0.0002, 'gap 0 mm a side'],
])('measured from %f to %f', (least, most, words) => {
  expect(measuredFit({ least, most }, 'mm')).toBe(words);
});

test('what was asked', () => {
  expect([0.06, 0, -0.05].map((allowance) => fitWords(allowance, 'mm'))).toEqual([
    'a gap of 0.06 mm a side',
    'neither gap nor press',
    'a press of 0.05 mm a side',
  ]);
  expect(fitWords(0.0508, 'in')).toBe('a gap of 0.002 in a side');
});
