import { expect, test } from 'vitest';
import { DrawnLines } from './drawn-lines.ts';

const SQUARE = [10, 10, 60, 10, 60, 60, 10, 60, 10, 10];

/** What is told of a kerf of 2 mm gone along a line so far from the square's lower side. */
function told(beside: number, lines: number[][] = [SQUARE], step = 0.4) {
  const drawn = new DrawnLines(lines);
  for (let x = 10; x < 60; x += step) drawn.passed(x, 10 - beside, x + step, 10 - beside, 2);
  return drawn.ended();
}

test.each([
  [1, 'once'],
  [1.3, 'once'],
  [2, 'twice'],
  [2.3, 'twice'],
  [0, undefined],
  [3, undefined],
])('%f mm beside what is drawn, a kerf of 2 mm is taken off %s', (beside, often) => {
  expect(told(beside)).toBe(often);
  expect(told(-beside)).toBe(often);
});

test('of two lines the nearer counts, and where nothing is drawn nothing is told', () => {
  expect(told(2, [SQUARE, [0, 9, 100, 9]])).toBe('once');
  expect(told(2, [])).toBeUndefined();
});

test('it is looked at once a millimetre, however short the moves are, and each cut by itself', () => {
  const drawn = new DrawnLines([SQUARE]);
  for (let x = 10; x < 10.9; x += 0.1) drawn.passed(x, 8, x + 0.1, 8, 2);
  expect(drawn.ended()).toBeUndefined();
  for (let x = 20; x < 50; x++) drawn.passed(x, 9, x + 1, 9, 2);
  expect(drawn.ended()).toBe('once');
  expect(drawn.ended()).toBeUndefined();
});
