import { describe, expect, test } from 'vitest';
import type { Command } from './commands.ts';
import { BENCH_KINDS } from '../kinds/bench-kinds.ts';
import { KIND_COMMANDS } from '../kinds/names.ts';
import { refusalOf, whyNot } from './guards.ts';
import type { RunnerState } from './runner-state.ts';

// What each command needs, said here once more by hand, so that a need that is dropped is missed.
const GOOD = {
  bench: 'ready',
  machine: { spindle: 0, touching: false },
  circuit: 'now',
  zero: { xy: { method: 'corner' }, z: { method: 'corner' } },
  bit: { id: 'v60', conducts: true, spring: null },
  ticks: { plate: {} },
  facts: { kind: 'router', setter: { x: 700, y: 40, force: 2 } },
} as unknown as RunnerState;
const WITHOUT = {
  'spindle-turning': { machine: { spindle: 18_000, touching: false } },
  'circuit-closed': { machine: { spindle: 0, touching: true } },
  'circuit-untried': { circuit: undefined },
  'no-bit': { bit: undefined },
  'no-zero': { zero: { xy: { method: 'corner' } } },
  'zero-void': { zero: { z: { method: 'flat', void: 'bit' } } },
  'plate-there': { ticks: {} },
  // A drag point is no conductor, and its spring gives before a setter moves whose force is more, the same or not known.
  'bit-insulates': { bit: { id: 'd', conducts: false, spring: null } },
  'setter-too-hard': { bit: { id: 'd', conducts: true, spring: { travel: 5, force: 2, width: 0.3 } } },
  'no-setter': { facts: { kind: 'router', setter: null } },
};
type Missing = keyof typeof WITHOUT;
const NEEDED: Record<string, Missing[]> = {
  home: ['spindle-turning'],
  step: ['spindle-turning'],
  jog: ['spindle-turning'],
  zero: ['no-bit', 'bit-insulates', 'spindle-turning', 'circuit-closed', 'circuit-untried'],
  'zero-here': ['no-bit', 'spindle-turning', 'circuit-closed'],
  'nudge-zero': ['no-zero', 'zero-void', 'spindle-turning'],
  'go-to-zero': ['circuit-closed', 'plate-there', 'spindle-turning'],
  measure: ['no-setter', 'no-bit', 'setter-too-hard', 'circuit-closed', 'plate-there', 'spindle-turning'],
  run: ['circuit-closed', 'plate-there', 'spindle-turning', 'no-bit'],
  'take-up': ['circuit-closed', 'plate-there', 'spindle-turning', 'no-bit'],
};

describe.each(Object.entries(NEEDED))('%s', (command, needs) => {
  const ask = (missing?: Missing) =>
    refusalOf({ ...GOOD, ...(missing ? WITHOUT[missing] : {}) } as RunnerState, command as 'zero');
  test('is taken where nothing is missing', () => expect(ask()).toBeUndefined());
  test.each(Object.keys(WITHOUT) as Missing[])('%s', (missing) => {
    expect(ask(missing)).toBe(needs.includes(missing) ? missing : undefined);
  });
});

test.each([
  [null, 5, 'setter-too-hard'],
  [2, 2, 'setter-too-hard'],
  [2.1, 2, 'setter-too-hard'],
  [1.9, 2, undefined],
] as const)('a setter of %s N and a spring of %s N: %s', (setter, force, why) => {
  const facts = { kind: 'router', setter: { x: 700, y: 40, force: setter } };
  const bit = { id: 'd', conducts: false, spring: { travel: 5, force, width: 0.3 } };
  expect(whyNot({ ...GOOD, facts, bit } as unknown as RunnerState, { command: 'measure' })).toBe(why);
});

test.each(['corner', 'spoilboard', 'paper', 'sight'])(
  'a zero found by %s: that no plate lies there has to be ticked',
  (method) => {
    expect(whyNot({ ...GOOD, ticks: {}, zero: { z: { method } } } as never, { command: 'run' })).toBe('plate-there');
  },
);

test.each([
  ['x', 102],
  ['y', 102],
  ['z', 26],
] as const)('a single step along %s is %f mm at most, either way', (axis, most) => {
  const step = (by: number) => whyNot(GOOD, { command: 'step', axis, by, feed: 500 } as Command & { command: 'step' });
  expect([step(most), step(-most), step(most + 0.5), step(-most - 0.5)]).toEqual([
    undefined,
    undefined,
    'step-too-long',
    'step-too-long',
  ]);
});

test('a machine of another kind takes none of a router’s own commands, and has needs and a list of its own', () => {
  BENCH_KINDS.beam = { ...BENCH_KINDS.router, commands: [], needs: { home: [{ id: 'lid', missing: () => 'alarm' }] } };
  const beam = { ...GOOD, facts: { kind: 'beam' } } as unknown as RunnerState;
  for (const command of KIND_COMMANDS) expect(whyNot(beam, { command }), command).toBe('other-machine');
  expect(whyNot(beam, { command: 'home' })).toBe('alarm');
  expect(
    whyNot({ ...beam, machine: WITHOUT['spindle-turning'].machine } as never, { command: 'step' }),
  ).toBeUndefined();
  delete BENCH_KINDS.beam;
});
