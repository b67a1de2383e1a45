import { expect, test } from 'vitest';
import { type Grouped, groupOf, TAKES } from './groups.ts';

const shape = (fields: Partial<Grouped>): Grouped => ({ width: 5, height: 7, outlines: 1, ...fields });
const letters = [
  shape({ line: 0, word: 0 }),
  shape({ line: 0, word: 1, width: 5.04 }),
  shape({ line: 0, word: 1, outlines: 2 }),
  shape({ line: 1, word: 2, height: 8 }),
];
const drawn = [
  shape({ layer: 'stars', colour: 'red' }),
  shape({ layer: 'stars', colour: 'blue', width: 6 }),
  shape({ colour: 'red', width: 7 }),
  shape({ width: 8 }),
];

test('a click takes the shape, or all of its word, line, item, layer, colour or size', () => {
  const taken = (shapes: Grouped[], k: number) => TAKES.map((takes) => groupOf(shapes, k, takes).join(''));
  //                                  shape word  line   item    layer colour alike
  expect(taken(letters, 1)).toEqual(['1', '12', '012', '0123', '1', '1', '01']);
  expect(taken(letters, 3)).toEqual(['3', '3', '3', '0123', '3', '3', '3']);
  expect(taken(drawn, 0)).toEqual(['0', '0', '0', '0123', '01', '02', '0']);
  expect(taken(drawn, 3)).toEqual(['3', '3', '3', '0123', '3', '3', '3']);
});
