import { describe, expect, test } from 'vitest';
import { type Stock, StockSchema } from '../document/stock.ts';
import { spread, thickest, thicknessAt, zeroOf } from './stock.ts';

const stock = (change: Partial<Stock> = {}): Stock =>
  StockSchema.parse({
    material: 'oak',
    length: 200,
    width: 100,
    corners: [20, 21, 22, 20.5],
    zeroXY: 'lower-left',
    zeroZ: 'stock',
    holdDown: 'clamps',
    keepOuts: [],
    lift: 5,
    spoilboard: 18,
    ...change,
  });

describe('stock', () => {
  test('the thickest corner counts, and the spread is what it is above the thinnest', () => {
    expect(thickest(stock())).toBe(22);
    expect(spread(stock())).toBe(2);
    // Common practice (handbook §4): corners of 4.98 and 4.93 mm spread by 0.05 mm.
    expect(spread(stock({ corners: [4.98, 4.93, 4.95, 4.96] }))).toBeCloseTo(0.05, 12);
  });
  test('between the corners the thickness is bilinear, beyond them that of the edge', () => {
    expect(thicknessAt(stock(), 0, 0)).toBe(20);
    expect(thicknessAt(stock(), 200, 0)).toBe(21);
    expect(thicknessAt(stock(), 200, 100)).toBe(22);
    expect(thicknessAt(stock(), 0, 100)).toBe(20.5);
    expect(thicknessAt(stock(), 100, 50)).toBe((20 + 21 + 22 + 20.5) / 4);
    expect(thicknessAt(stock(), -50, 0)).toBe(20);
  });
  test.each([
    ['lower-left', [0, 0]],
    ['lower-right', [200, 0]],
    ['upper-right', [200, 100]],
    ['upper-left', [0, 100]],
    ['centre', [100, 50]],
  ] as const)('zero at the %s', (zeroXY, [x, y]) => {
    expect(zeroOf(stock({ zeroXY }))).toEqual({ x, y, z: 0 });
    expect(zeroOf(stock({ zeroXY, zeroZ: 'spoilboard' }))).toEqual({ x, y, z: -22 });
  });
  test('a pin is a keep-out like clamps and screws, and a nail is none', () => {
    const pin = { id: 'pin-1', kind: 'pin', x: -10, y: 40, length: 10, width: 11, height: 12 };
    expect(StockSchema.parse({ ...stock(), keepOuts: [pin] }).keepOuts).toEqual([pin]);
    expect(StockSchema.safeParse({ ...stock(), keepOuts: [{ ...pin, kind: 'nail' }] }).success).toBe(false);
  });
});
