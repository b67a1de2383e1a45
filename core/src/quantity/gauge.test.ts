import { expect, test } from 'vitest';
import { parseQuantity } from './expression.ts';
import { gaugeOf, gaugeThickness } from './gauge.ts';

// Manufacturers' Standard Gauge for sheet steel, thicknesses in inches as the published table rounds them (from memory, but
// for number 10, which is common practice: handbook §6).
test.each([
  [3, 0.2391],
  [7, 0.1793],
  [8, 0.1644],
  [10, 0.1345],
  [11, 0.1196],
  [12, 0.1046],
  [14, 0.0747],
  [16, 0.0598],
  [18, 0.0478],
  [20, 0.0359],
  [22, 0.0299],
  [24, 0.0239],
  [26, 0.0179],
  [28, 0.0149],
  [30, 0.012],
  [38, 0.006],
])('sheet steel of gauge %i is %f in thick', (number, inches) => {
  expect(gaugeThickness(number)! / 25.4).toBeCloseTo(inches, 4);
  expect(gaugeOf(inches * 25.4)).toBe(number);
});

test('what is no gauge has no thickness, and what lies between two is none', () => {
  expect([2, 39, 10.5, NaN].map(gaugeThickness)).toEqual([undefined, undefined, undefined, undefined]);
  expect(gaugeOf(3.2)).toBeUndefined();
});

test('a length may be given by its gauge, also in a sum, and a wrong one is said', () => {
  const read = (text: string) => parseQuantity(text, 'length', 'mm');
  expect(read('10 ga')).toMatchObject({ ok: true });
  expect((read('10ga') as { value: number }).value).toBeCloseTo(3.416, 3);
  expect((read('10 gauge + 1 mm') as { value: number }).value).toBeCloseTo(4.416, 3);
  expect(read('2 ga')).toEqual({
    ok: false,
    problem: '“2 ga” is no gauge of sheet steel; its numbers go from 3 to 38.',
  });
  for (const twice of ['10 mm ga', '10 ga ga', '10 mm in']) expect(read(twice)).toMatchObject({ ok: false });
  expect(parseQuantity('10 ga', 'feed', 'mm')).toMatchObject({ ok: false });
});
