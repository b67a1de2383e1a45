import { expect, test } from 'vitest';
import { length } from './quantity-field.ts';
import { atMost, choiceSlot, slotsOf, slotText } from './slot.ts';

const { depth } = slotsOf({ depth: length('depth', { above: 0, max: 200 }) }, { depth: 3.25 });

test('what a value sets, and how it is shown', () => {
  expect(depth.set(4)).toEqual({ depth: 4 });
  expect(slotText(depth, 'mm')).toBe('3.25 mm');
  expect(slotText(depth, 'in')).toBe('0.128 in');
});

test('a value that something else limits', () => {
  expect(atMost(depth, 12).control).toMatchObject({ is: 'quantity', max: 12 });
  expect(atMost(depth, 900).control).toMatchObject({ max: 200 });
  const choice = choiceSlot('passes', { one: 'in one go', more: 'in passes' }, 'one', (to) => ({ to }));
  expect(atMost(choice, 12)).toBe(choice);
  expect(slotText(choice, 'mm')).toBe('in one go');
  expect(choice.set('more')).toEqual({ to: 'more' });
});
