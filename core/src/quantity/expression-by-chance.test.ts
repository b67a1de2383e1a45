import fc from 'fast-check';
import { expect, test } from 'vitest';
import { parseQuantity, type QuantityKind } from './expression.ts';

/**
 * Promises held here: what is written as a sum, a product, a fraction or a mixed number, in any unit and with any brackets,
 * is what arithmetic makes of it, in mm, mm/min or degrees; what adds or multiplies what does not go together is refused;
 * a limit is held exactly and said in the field's own unit.
 */
interface Written {
  text: string;
  /** In mm where its power is 1. */
  value: number;
  power: number;
}
const UNITS = [
  ['mm', 1],
  ['cm', 10],
  ['m', 1000],
  ['in', 25.4],
  ['"', 25.4],
  ['inch', 25.4],
  ['ft', 304.8],
  ["'", 304.8],
] as const;

const plain = fc.oneof(
  fc.integer({ min: 1, max: 99 }).map((n) => ({ text: String(n), value: n })),
  fc
    .integer({ min: 1, max: 999 })
    .map((n) => ({ text: `${Math.floor(n / 100)}.${String(n % 100).padStart(2, '0')}`, value: n / 100 })),
  fc
    .tuple(fc.integer({ min: 1, max: 7 }), fc.integer({ min: 1, max: 7 }))
    .map(([n, top]) => ({ text: `${n} ${top}/8`, value: n + top / 8 })),
);
const bare: fc.Arbitrary<Written> = plain.map((one) => ({ ...one, power: 0 }));
const length: fc.Arbitrary<Written> = fc
  .tuple(plain, fc.constantFrom(...UNITS), fc.boolean())
  .map(([{ text, value }, [unit, mm], minus]) => ({
    text: `${minus ? '-' : ''}${text} ${unit}`,
    value: (minus ? -1 : 1) * value * mm,
    power: 1,
  }));

const sumOf = (of: fc.Arbitrary<Written>) =>
  fc.array(fc.tuple(of, fc.boolean()), { minLength: 1, maxLength: 4 }).map((list): Written => ({
    text: list.map(([{ text }, minus], k) => `${k ? (minus ? ' - ' : ' + ') : ''}(${text})`).join(''),
    value: list.reduce((sum, [{ value }, minus], k) => sum + (k && minus ? -value : value), 0),
    power: list[0][0].power,
  }));
const product = fc
  .tuple(sumOf(length), bare, fc.constantFrom('*', '×', '/', '÷'), fc.boolean())
  .map(([a, b, mark, turned]): Written => {
    const times = mark === '*' || mark === '×';
    if (turned && times) return { text: `${b.text} ${mark} (${a.text})`, value: b.value * a.value, power: 1 };
    return { text: `(${a.text}) ${mark} (${b.text})`, value: times ? a.value * b.value : a.value / b.value, power: 1 };
  });

const read = (text: string, kind: QuantityKind, unit: 'mm' | 'in' = 'mm') => parseQuantity(text, kind, unit);
const close = (text: string, kind: QuantityKind, unit: 'mm' | 'in', value: number) => {
  const got = read(text, kind, unit);
  expect(got, text).toMatchObject({ ok: true });
  expect(Math.abs((got as { value: number }).value - value), text).toBeLessThan(1e-9 * Math.max(1, Math.abs(value)));
};

test('sums and products of lengths in any unit, as lengths and as feed rates', () => {
  fc.assert(
    fc.property(fc.oneof(sumOf(length), product), fc.constantFrom('mm', 'in'), ({ text, value }, unit) => {
      close(text, 'length', unit, value);
      close(text, 'feed', unit, value);
      close(`(${text})/s`, 'feed', unit, 60 * value);
      close(`(${text}) / min`, 'feed', unit, value);
    }),
  );
});

test('bare numbers take the field’s unit, in sums with lengths, too', () => {
  fc.assert(
    fc.property(sumOf(bare), length, fc.constantFrom('mm', 'in'), (n, mm, unit) => {
      const per = unit === 'in' ? 25.4 : 1;
      close(n.text, 'length', unit, n.value * per);
      close(n.text, 'feed', unit, n.value * per);
      close(n.text, 'number', unit, n.value);
      close(n.text, 'angle', unit, n.value);
      close(`(${n.text}) deg`, 'angle', unit, n.value);
      close(`(${n.text}) rad`, 'angle', unit, (n.value * 180) / Math.PI);
      close(`(${n.text}) rpm`, 'number', unit, n.value);
      close(`${n.text} + ${mm.text}`, 'length', unit, n.value * per + mm.value);
      close(`${mm.text} - (${n.text})`, 'length', unit, mm.value - n.value * per);
    }),
  );
});

test.each([
  ['-1 3/8 in', 'length', -1.375 * 25.4],
  ['2 * 1 3/8', 'length', 2.75],
  ['5 mm - 1 1/2 mm', 'length', 3.5],
  ['- -2', 'length', 2],
  ['+4', 'length', 4],
  ['10 ga', 'length', (90 / (16 * 41.82)) * 25.4],
] as const)('%s', (text, kind, value) => {
  close(text, kind, 'mm', value);
});

test.each<[string, QuantityKind, RegExp]>([
  ['3/8 1/4', 'length', /side by side/],
  ['1.5 3/8', 'length', /side by side/],
  ['1 3', 'length', /side by side/],
  ['1 3 *', 'length', /side by side/],
  ['3 / (2 mm)', 'length', /is not a length/],
  ['(2 mm) * (3 mm)', 'feed', /is not a length/],
  ['2 mm 3', 'length', /cannot be read as one number/],
  ['2)', 'length', /cannot be read as one number/],
  ['2 mm', 'angle', /is a length, but an angle belongs here/],
  ['2 mm', 'number', /is a length, but a plain number belongs here/],
  ['2 mm + 3', 'number', /adds a length to a plain number/],
  ['2 deg', 'length', /“deg” is not a unit that fits here; use mm or in/],
  ['2 rpm', 'length', /“rpm” is not a unit that fits here; use mm or in/],
  ['2 rpm', 'angle', /“rpm” is not a unit that fits here; use deg/],
  ['2 rad', 'number', /“rad” is not a unit/],
  ['10 ga', 'feed', /“ga” is not a unit/],
  ['2 ga', 'length', /is no gauge of sheet steel; its numbers go from 3 to 38/],
  ['39 ga', 'length', /is no gauge of sheet steel/],
  ['10 mm ga', 'length', /“ga” is not a unit/],
  ['3 mm/s', 'length', /“s” is not a unit|stops short/],
  ['*3', 'length', /stops short/],
  [' 7 elephants ', 'length', /^“elephants” is not a unit/],
  ['  # ', 'length', /^“#” cannot be read in “#”/],
])('“%s” as %s', (text, kind, problem) => {
  const got = read(text, kind);
  expect(got.ok ? `read as ${got.value}` : got.problem).toMatch(problem);
});

test('limits hold to the number itself, and are said in the field’s unit', () => {
  const said = (text: string, kind: QuantityKind, unit: 'mm' | 'in', limits: Parameters<typeof parseQuantity>[3]) => {
    const got = parseQuantity(text, kind, unit, { name: 'It', ...limits });
    return got.ok ? 'taken' : got.problem.replace(/; “.*$/, '');
  };
  expect(said('3', 'length', 'mm', { min: 3, max: 7 })).toBe('taken');
  expect(said('7', 'length', 'mm', { min: 3, max: 7 })).toBe('taken');
  expect(said('2.999', 'length', 'mm', { min: 3, max: 7 })).toBe('It must be between 3 mm and 7 mm');
  expect(said('7.001', 'length', 'mm', { min: 3, max: 7 })).toBe('It must be between 3 mm and 7 mm');
  expect(said('7.001', 'length', 'mm', { max: 7 })).toBe('It must be at most 7 mm');
  expect(said('2', 'length', 'mm', { min: 3 })).toBe('It must be at least 3 mm');
  expect(said('2', 'feed', 'in', { min: 76.2 })).toBe('It must be at least 3 in/min');
  expect(said('3', 'length', 'mm', { above: 3 })).toBe('It must be more than 3 mm');
  expect(said('3', 'length', 'in', { above: 76.2, max: 254 })).toBe('It must be more than 3 in and at most 10 in');
  expect(said('3.001', 'length', 'mm', { above: 3, max: 4 })).toBe('taken');
  expect(said('91', 'angle', 'in', { max: 90 })).toBe('It must be at most 90°');
  expect(said('91', 'number', 'in', { max: 90 })).toBe('It must be at most 90');
  expect(said('3', 'count', 'in', { max: 2 })).toBe('It must be at most 2');
  expect(said('5/2', 'count', 'mm', {})).toBe('It must be a whole number');
});
