import { expect, test } from 'vitest';
import type { Stock } from '../document/stock.ts';
import { onSheet } from './on-sheet.ts';

const stock = {
  length: 400,
  width: 100,
  zeroXY: 'lower-right',
  zeroZ: 'stock',
  corners: [3, 3.1, 3, 2.9],
} as unknown as Stock;

// Turned by a right angle, what the machine calls 10 to the front lies 10 to the left on the sheet as it is drawn.
test.each([
  ['as it lies', 0, { x: -30, y: 20 }, { x: 370, y: 20 }],
  ['turned by a right angle', Math.PI / 2, { x: 0, y: -10 }, { x: 390, y: 0 }],
  ['turned by 3:4:5', Math.atan2(3, 4), { x: 10, y: 0 }, { x: 408, y: -6 }],
])('a place from zero on the sheet %s', (_, turn, place, drawn) => {
  const { x, y } = onSheet(place, stock, turn);
  expect(x).toBeCloseTo(drawn.x, 9);
  expect(y).toBeCloseTo(drawn.y, 9);
});
