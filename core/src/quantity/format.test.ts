import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseQuantity } from './expression.ts';
import { formatArea, formatFeed, formatLength, formatMinutes, lengthNumber } from './format.ts';
import { arrowIn, decimalsIn } from './units.ts';

describe('numbers as carvers read them', () => {
  test.each([
    [9.525, 'in', '0.375'],
    [25.4, 'in', '1'],
    [0.05, 'mm', '0.05'],
    [100, 'mm', '100'],
    [0, 'mm', '0'],
    [-0.0001, 'mm', '0'],
    [-12.5, 'mm', '-12.5'],
  ] as const)('%d mm in %s is %s', (mm, unit, text) => {
    expect(lengthNumber(mm, unit)).toBe(text);
  });
  test('lengths and feeds carry their unit', () => {
    expect(formatLength(6.5, 'mm')).toBe('6.5 mm');
    expect(formatLength(6.35, 'in')).toBe('0.25 in');
    expect(formatLength(6.54321, 'mm', 3)).toBe('6.543 mm');
    expect(formatFeed(1524, 'in')).toBe('60 in/min');
    expect(formatFeed(1524.4, 'mm')).toBe('1524 mm/min');
    // A square inch is 6.4516 cm².
    expect([formatArea(1081, 'mm'), formatArea(1290.32, 'in'), formatArea(96.774, 'in')]).toEqual(['10.81 cm²', '2 in²', '0.15 in²']); // prettier-ignore
    expect([formatArea(1081, 'mm', 0), formatArea(1081, 'in', 0)]).toEqual(['11 cm²', '1.7 in²']);
  });
  test('an inch shows two digits more where few are shown, else one, and a field’s arrow adds about as much', () => {
    expect([0, 1, 2, 3].map((decimals) => decimalsIn(decimals, 'in'))).toEqual([2, 3, 3, 4]);
    expect([0, 1, 2, 3].map((decimals) => decimalsIn(decimals, 'mm'))).toEqual([0, 1, 2, 3]);
    expect([1, 0.1, 0.01].map((mm) => arrowIn(mm, 'in'))).toEqual([0.05, 0.005, 0.001]);
  });
  test.each([
    [0, '0 s'],
    [0.5, '30 s'],
    [59.6 / 60, '1 min 00 s'],
    [18.0833, '18 min 05 s'],
    [59.999, '1 h 00 min'],
    [61, '1 h 01 min'],
    [125.4, '2 h 05 min'],
  ])('%d minutes: %s', (minutes, text) => {
    expect(formatMinutes(minutes)).toBe(text);
  });
  test('what a number field shows is read back as what it was', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -500_000, max: 500_000 }),
        fc.constantFrom('mm' as const, 'in' as const),
        (k, unit) => {
          const mm = unit === 'mm' ? k / 1000 : (k / 10_000) * 25.4;
          const read = parseQuantity(`${lengthNumber(mm, unit)} ${unit}`, 'length', unit);
          expect(read.ok && Math.abs(read.value - mm) < 1e-6).toBe(true);
        },
      ),
      { numRuns: 300, seed: 1 },
    );
  });
});
