import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { choice, flag } from './choice-field.ts';
import type { AnyField } from './field.ts';
import { group } from './group-field.ts';
import { listOf } from './list-field.ts';
import { optional } from './optional-field.ts';
import * as quantities from './quantity-field.ts';
import { say, sentenceText } from './sentence.ts';
import { slotsOf, slotText } from './slot.ts';

/**
 * Promises held here: a field’s schema, its control and its option take the same numbers and no others; what a slot shows and
 * is given back changes nothing; setting a slot inside a group keeps the rest of it; an option that cannot be read says so in
 * one sentence with its own name.
 */
const given = { now: 0, bit: { diameter: 6 }, label: 'The depth' };
const option = (field: AnyField, text: string) => {
  try {
    return field.options[0].read(text, given as never) as unknown;
  } catch (error) {
    return (error as Error).message;
  }
};

describe('numbers', () => {
  const builders = [
    'length',
    'feed',
    'angle',
    'speed',
    'seconds',
    'force',
    'volts',
    'factor',
    'density',
    'milliseconds',
    'percent',
  ] as const;

  test.each(builders)('%s: schema, control and option take the same numbers', (name) => {
    const number = fc.integer({ min: -500, max: 500 }).map((n) => n / 10);
    fc.assert(
      fc.property(number, number, number, fc.boolean(), (value, a, b, open) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b) + 0.1];
        const field = quantities[name]('the thing', open ? { above: low, max: high } : { min: low, max: high });
        const fits = (open ? value > low : value >= low) && value <= high;
        expect(field.schema.safeParse(value).success).toBe(fits);
        expect(field.control).toMatchObject({ is: 'quantity', max: high, ...(open ? { above: low } : { min: low }) });
        expect(option(field, `${value}`)).toEqual(
          fits ? value : expect.stringMatching(/^The depth: The depth must be /),
        );
        expect(field.options[0].name).toBe('the-thing');
      }),
    );
  });

  test('a count is whole', () => {
    const field = quantities.count('passes', 'passes', { min: 1, max: 9, initial: 2 });
    expect([1, 9, 1.5, 0, 10].map((n) => field.schema.safeParse(n).success)).toEqual([true, true, false, false, false]);
    expect(field.schema.parse(undefined)).toBe(2);
    expect(option(field, '2.5')).toMatch(/must be a whole number/);
    expect(option(field, '3 passes')).toBe(3);
  });

  test('a number without limits below takes any', () => {
    expect(quantities.length('x', { max: 4 }).schema.safeParse(-1e6).success).toBe(true);
  });

  test('a unit behind it, or a share of the bit where it may be one', () => {
    const words = { min: 0, max: 500, none: 'so nothing would be cut; give one' };
    const step = quantities.length('step', { ...words, share: true });
    expect(
      ['40%', ' 40 % ', '12.5%', '3 mm', '1/4 in'].map((text) => Number((option(step, text) as number).toFixed(9))),
    ).toEqual([2.4, 2.4, 0.75, 3, 6.35]);
    for (const text of ['x40%', '40%x', '4 0%', '-40%', '%']) expect(option(step, text), text).toMatch(/^The depth: /);
    for (const text of ['0', '0%', '0 mm', '3 - 3'])
      expect(option(step, text)).toBe('The depth is 0, so nothing would be cut; give one.');
    const power = quantities.percent('power', { min: 0, max: 100 });
    expect(['40%', ' 40 % ', '40', '0'].map((text) => option(power, text))).toEqual([40, 40, 40, 0]);
    expect(option(power, '%40')).toMatch(/cannot be read/);
    expect(option(quantities.speed('spindle speed', { min: 0, max: 30_000 }), '18000 rpm')).toBe(18_000);
  });

  test('its option has its own name, another, or there is none', () => {
    const limits = { min: 0, max: 9 };
    const names = (field: AnyField) => field.options.map(({ name }) => name);
    expect(names(quantities.length('depth per pass', limits))).toEqual(['depth-per-pass']);
    expect(names(quantities.length('depth', { ...limits, option: 'deep' }))).toEqual(['deep']);
    expect(names(quantities.length('depth', { ...limits, option: false }))).toEqual([]);
    expect(names(choice('side of it', { a: 'A' }))).toEqual(['side']);
    expect(names(choice('side of it', { a: 'A' }, { option: 'at' }))).toEqual(['at']);
    expect(names(choice('side of it', { a: 'A' }, { option: false }))).toEqual([]);
  });
});

describe('words', () => {
  test('one of several', () => {
    const side = choice('side', { outside: 'outside the line', on: 'on the line' }, { initial: 'on' });
    expect([option(side, 'outside'), option(side, 'on')]).toEqual(['outside', 'on']);
    expect(option(side, 'in')).toBe('The depth is one of outside, on, not “in”.');
    expect(side.schema.parse(undefined)).toBe('on');
    expect(side.schema.safeParse('in').success).toBe(false);
    expect(choice('side', { on: 'on' }).schema.safeParse(undefined).success).toBe(false);
  });

  test('yes or no, as its words', () => {
    const climb = flag(
      'direction',
      { yes: 'climb', no: 'conventional' },
      { initial: true, option: { name: 'conventional', means: false } },
    );
    for (const value of [true, false]) expect(climb.given!(climb.shown!(value))).toBe(value);
    expect([climb.schema.parse(undefined), option(climb, '')]).toEqual([true, false]);
    expect(climb.options[0].bare).toBe(true);
    expect(flag('d', { yes: 'a', no: 'b' }).options).toEqual([]);
    expect(flag('d', { yes: 'a', no: 'b' }).schema.safeParse(undefined).success).toBe(false);
    const slots = slotsOf({ climb }, { climb: false });
    expect([slots.climb.value, slotText(slots.climb, 'mm')]).toEqual(['no', 'conventional']);
    expect([slots.climb.set('yes'), slots.climb.set('no')]).toEqual([{ climb: true }, { climb: false }]);
  });
});

describe('fields of fields', () => {
  const tabs = group(
    'the tabs',
    {
      count: quantities.count('number', 'tabs', { min: 0, max: 9 }),
      size: group('size', {
        height: quantities.length('height', { min: 0, max: 9 }),
        length: quantities.length('length', { min: 0, max: 90 }),
      }),
    },
    { initial: { count: 4, size: { height: 2, length: 7 } } },
  );
  const value = { tabs: { count: 3, size: { height: 1.5, length: 8 } } };

  test('setting one keeps the others', () => {
    const slots = slotsOf({ tabs }, value);
    expect(slots.tabs.count.set(5)).toEqual({ tabs: { count: 5, size: { height: 1.5, length: 8 } } });
    expect(slots.tabs.size.length.set(11)).toEqual({ tabs: { count: 3, size: { height: 1.5, length: 11 } } });
    expect(slotText(slots.tabs.count, 'mm')).toBe('3 tabs');
  });

  test('they have their own schema, and a value where there is none', () => {
    expect(tabs.schema.parse(undefined)).toEqual({ count: 4, size: { height: 2, length: 7 } });
    expect(tabs.schema.safeParse({ count: 10, size: { height: 1, length: 1 } }).success).toBe(false);
    expect(group('g', { count: tabs.fields.count }).schema.safeParse(undefined).success).toBe(false);
    // Nothing is set inside what is not there.
    const slots = slotsOf({ tabs }, {} as never) as unknown as { tabs: { set: (v: unknown) => unknown } };
    expect(slots.tabs.set(7)).toEqual({ tabs: 7 });
  });

  test('one that may be null, and a list', () => {
    const maybe = optional(quantities.length('depth', { above: 0, max: 9 }));
    expect([maybe.schema.parse(undefined), maybe.schema.parse(null), maybe.schema.parse(3)]).toEqual([null, null, 3]);
    expect(maybe.schema.safeParse(0).success).toBe(false);
    expect(option(maybe, '3')).toBe(3);
    const list = listOf('places', quantities.length('depth', { above: 0, max: 9 }), 2);
    expect(list.schema.parse(undefined)).toEqual([]);
    expect([[1, 2], [1, 2, 3], [0]].map((v) => list.schema.safeParse(v).success)).toEqual([true, false, false]);
  });
});

test('sentences: broken lines are spaces, what is empty is left out, values are shown to a thousandth', () => {
  const fields = {
    ramp: quantities.angle('ramp', { min: 0, max: 30 }),
    gamma: quantities.factor('gamma', { min: 0, max: 9 }),
    feed: quantities.feed('feed', { min: 0, max: 9e4 }),
    power: quantities.percent('power', { min: 0, max: 100 }),
  };
  const slots = slotsOf(fields, { ramp: 7.12345, gamma: 2.20049, feed: 1524, power: 30.5 });
  const inner = say`at ${slots.power}`;
  const sentence = say`${slots.ramp},
      ${slots.gamma}${false}${''}; ${inner} and ${slots.feed}${'!'}`;
  expect(sentenceText(sentence, 'in')).toBe('7.123°, 2.2; at 30.5 % and 60 in/min!');
});
