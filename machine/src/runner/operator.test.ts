import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Operator } from './operator.ts';
import type { RunnerState } from './runner-state.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const of = (page: string) => ({ page, name: `at ${page}` });
function begun() {
  const state = { bench: 'ready', ticks: {} } as RunnerState;
  const changed = vi.fn();
  const operator = new Operator(state, changed);
  operator.seen('a', true);
  expect(operator.mayCommand(of('a'))).toBeUndefined();
  return { state, operator, changed, commands: () => state.operator?.page };
}

test('who closes the page has left after three seconds, and everybody is told', () => {
  const { operator, changed, commands } = begun();
  operator.seen('a', false);
  changed.mockClear();
  vi.advanceTimersByTime(2900);
  expect(commands()).toBe('a');
  expect(operator.mayCommand(of('b'))).toBe('other-operator');
  vi.advanceTimersByTime(300);
  expect(commands()).toBeUndefined();
  expect(changed).toHaveBeenCalledTimes(1);
  expect(operator.mayCommand(of('b'))).toBeUndefined();
  expect(commands()).toBe('b');
});

test('a page that is loaded anew meanwhile goes on, and so does one of two that are open', () => {
  const { operator, commands } = begun();
  operator.seen('a', false);
  vi.advanceTimersByTime(1000);
  operator.seen('a', true);
  vi.advanceTimersByTime(60_000);
  expect(commands()).toBe('a');
  operator.seen('a', true);
  operator.seen('a', false);
  vi.advanceTimersByTime(60_000);
  expect(commands()).toBe('a');
  expect(operator.mayCommand(of('b'))).toBe('other-operator');
});

test('who asks gets it when it is given, or after ten seconds without an answer, and not when it is kept', () => {
  const { state, operator, commands } = begun();
  expect([operator.give(), operator.keep()]).toEqual(['not-asked', 'not-asked']);
  operator.take(of('b'));
  expect(state.asks).toMatchObject({ page: 'b', name: 'at b' });
  expect(operator.keep()).toBeUndefined();
  vi.advanceTimersByTime(20_000);
  expect(commands()).toBe('a');
  operator.take(of('b'));
  vi.advanceTimersByTime(9900);
  expect(commands()).toBe('a');
  vi.advanceTimersByTime(200);
  expect([commands(), state.asks]).toEqual(['b', undefined]);
  operator.seen('b', true);
  operator.take(of('a'));
  expect(operator.give()).toBeUndefined();
  expect([commands(), state.asks]).toEqual(['a', undefined]);
  operator.take(of('a'));
  expect(state.asks).toBeUndefined();
});
