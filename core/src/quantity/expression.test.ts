import { describe, expect, test } from 'vitest';
import { parseQuantity } from './expression.ts';
import { formatFeed, formatLength, formatMinutes, lengthNumber } from './format.ts';

describe('sums and units', () => {
  // The inch is 25.4 mm exactly (international yard and pound agreement, 1959).
  test.each([
    ['87 + 10', 97],
    ['3/8 in', 9.525],
    ['(190-35)/2', 77.5],
    ['3/8 in + 2 mm', 11.525],
    ['3/8 in + 2', 11.525],
    ['1 3/8 in', 34.925],
    ['2 in * 3', 152.4],
    ['1/8"', 3.175],
    ['1 ft', 304.8],
    ['2.5 cm', 25],
    ['−4 + 6', 2],
    ['.5', 0.5],
    ['12,5', 12.5],
  ])('%s is %f mm', (text, mm) => {
    const parsed = parseQuantity(text, 'length', 'mm');
    expect(parsed.ok && parsed.value).toBeCloseTo(mm, 9);
  });
  test('a bare number takes the field’s unit', () => {
    expect(parseQuantity('2', 'length', 'in')).toEqual({ ok: true, value: 50.8 });
    expect(parseQuantity('60', 'feed', 'in')).toEqual({ ok: true, value: 1524 });
    expect(parseQuantity('60 in/min', 'feed', 'mm')).toEqual({ ok: true, value: 1524 });
    expect(parseQuantity('25 mm/s', 'feed', 'mm')).toEqual({ ok: true, value: 1500 });
    expect(parseQuantity('60°', 'angle', 'mm')).toEqual({ ok: true, value: 60 });
  });
  test.each([
    ['12..5', /two decimal points/],
    ['', /Nothing is written/],
    ['3 4', /side by side/],
    ['(3 + 4', /bracket is left open/],
    ['5 +', /stops short/],
    ['2 mm * 3 mm', /not a length/],
    ['1/0', /no finite result/],
    ['7 elephants', /not a unit/],
    ['#', /cannot be read/],
  ])('“%s” gets a sentence', (text, sentence) => {
    const parsed = parseQuantity(text, 'length', 'mm');
    expect(parsed.ok ? '' : parsed.problem).toMatch(sentence);
  });
  test('limits are said in the field’s unit', () => {
    const parsed = parseQuantity('-3 in', 'length', 'in', { min: 0.254, max: 25.4, name: 'The depth' });
    expect(parsed).toEqual({ ok: false, problem: 'The depth must be between 0.01 in and 1 in; “-3 in” is too small.' });
    expect(parseQuantity('2.5', 'count', 'mm').ok).toBe(false);
  });
});

test('numbers are written as carvers read them', () => {
  expect(lengthNumber(9.525, 'in')).toBe('0.375');
  expect(formatLength(6.5, 'mm')).toBe('6.5 mm');
  expect(formatFeed(1524, 'in')).toBe('60 in/min');
  expect(formatMinutes(18 + 5 / 60)).toBe('18 min 05 s');
  expect(formatMinutes(61)).toBe('1 h 01 min');
  expect(lengthNumber(-0.0001, 'mm')).toBe('0');
});
