import { describe, expect, test } from 'vitest';
import type { Command } from './commands.ts';
import { refusalOf, whyNot } from './guards.ts';
import type { RunnerState } from './runner-state.ts';

// What each command needs, said here once more by hand, so that a need that is dropped is missed.
const GOOD = {
  bench: 'ready',
  machine: { spindle: 0, touching: false },
  circuit: 'now',
  zero: { xy: {}, z: {} },
  bit: { id: 'v60' },
  ticks: { plate: {} },
} as unknown as RunnerState;
const WITHOUT = {
  'spindle-turning': { machine: { spindle: 18_000, touching: false } },
  'circuit-closed': { machine: { spindle: 0, touching: true } },
  'circuit-untried': { circuit: undefined },
  'no-bit': { bit: undefined },
  'no-zero': { zero: { xy: {} } },
  'zero-void': { zero: { z: { void: 'bit' } } },
  'plate-there': { ticks: {} },
  'no-setter': {},
};
type Missing = keyof typeof WITHOUT;
const NEEDED: Record<string, Missing[]> = {
  home: ['spindle-turning'],
  step: ['spindle-turning'],
  jog: ['spindle-turning'],
  zero: ['no-bit', 'spindle-turning', 'circuit-closed', 'circuit-untried'],
  'nudge-zero': ['no-zero', 'zero-void', 'spindle-turning'],
  'go-to-zero': ['circuit-closed', 'plate-there', 'spindle-turning'],
  measure: ['no-setter', 'no-bit', 'circuit-closed', 'plate-there', 'spindle-turning'],
  run: ['circuit-closed', 'plate-there', 'spindle-turning', 'no-bit'],
  'take-up': ['circuit-closed', 'plate-there', 'spindle-turning', 'no-bit'],
};

describe.each(Object.entries(NEEDED))('%s', (command, needs) => {
  const ask = (missing?: Missing) =>
    refusalOf({ ...GOOD, ...(missing ? WITHOUT[missing] : {}) } as RunnerState, command as 'zero', {
      setter: missing !== 'no-setter',
    });
  test('is taken where nothing is missing', () => expect(ask()).toBeUndefined());
  test.each(Object.keys(WITHOUT) as Missing[])('%s', (missing) => {
    expect(ask(missing)).toBe(needs.includes(missing) ? missing : undefined);
  });
});

test.each([
  ['x', 102],
  ['y', 102],
  ['z', 26],
] as const)('a single step along %s is %f mm at most, either way', (axis, most) => {
  const step = (by: number) =>
    whyNot(GOOD, { command: 'step', axis, by, feed: 500 } as Command & { command: 'step' }, { setter: true });
  expect([step(most), step(-most), step(most + 0.5), step(-most - 0.5)]).toEqual([
    undefined,
    undefined,
    'step-too-long',
    'step-too-long',
  ]);
});
