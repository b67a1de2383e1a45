import { expect, test } from 'vitest';
import { StepsByField } from './steps-by-field.ts';

test('a step back belongs to the field that the last step was made in, and goes no further', () => {
  const steps = new StepsByField();
  steps.made('');
  steps.made('art Words');
  steps.made('art Words');
  expect([steps.belongs('art Words', 'undo'), steps.belongs('art cap height', 'undo')]).toEqual([true, false]);
  steps.took('undo');
  steps.took('undo');
  // What is left was done by a button.
  expect([steps.belongs('art Words', 'undo'), steps.belongs('', 'undo')]).toEqual([false, false]);
  expect(steps.belongs('art Words', 'redo')).toBe(true);
  steps.took('redo');
  expect(steps.belongs('art Words', 'undo')).toBe(true);
  // A new step leaves nothing to be done again.
  steps.made('art cap height');
  expect(steps.belongs('art Words', 'redo')).toBe(false);
  steps.forget();
  expect(steps.belongs('art cap height', 'undo')).toBe(false);
});
