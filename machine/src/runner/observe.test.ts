import { expect, test } from 'vitest';
import type { MachineState, MachineWire } from '../link/machine-state.ts';
import { observe } from './observe.ts';
import type { RunnerState } from './runner-state.ts';
import type { BenchState } from './states.ts';
import { afterEvent, inRun, STATES } from './table.ts';

const AT_REST = { word: 'idle', homed: true } as MachineState;

/** What a bench makes of what a machine says, which was at rest before. */
function seen(bench: BenchState, says: Partial<MachineState>, since = true, live = false, before = AT_REST) {
  const state = { bench, ticks: {} } as RunnerState;
  const done: string[] = [];
  observe({ ...AT_REST, ...says } as MachineState, before, {
    state,
    wire: {
      since: () => since,
      forget: () => {},
      control: (word: string) => done.push(word),
    } as unknown as MachineWire,
    driver: { live: () => live },
    holdMark: 0,
    event: (name) => {
      done.push(name);
      state.bench = afterEvent(state.bench, name)!;
    },
    happened: (change) => done.push(change),
    endTask: () => done.push('task ended'),
    busy: () => false,
    endJog: () => done.push('jog ended'),
  });
  return { to: state.bench, done, problem: state.problem };
}

test.each<[BenchState, Partial<MachineState>, BenchState, string[]]>([
  ['running', { word: 'alarm' }, 'alarm', ['position-lost', 'machine-alarm', 'task ended']],
  ['ready', { word: 'alarm' }, 'alarm', ['position-lost', 'machine-alarm', 'task ended']],
  // Hands are at the collet, and what waits for them goes on waiting.
  ['changing', { word: 'alarm' }, 'changing-released', ['machine-alarm']],
  ['changing', { word: 'emergency' }, 'changing-safe', ['emergency-at-rest', 'machine-emergency']],
  ['running', { word: 'emergency' }, 'emergency', ['position-lost', 'machine-emergency', 'task ended']],
  ['ready', { word: 'emergency' }, 'emergency', ['emergency-at-rest', 'machine-emergency', 'task ended']],
  ['changing-safe', { word: 'alarm' }, 'changing-released', ['machine-released']],
  ['emergency', { word: 'alarm' }, 'alarm', ['machine-released']],
  ['alarm', {}, 'ready', ['machine-cleared']],
  ['changing-released', {}, 'changing', ['machine-cleared']],
  ['changing', { word: 'unhomed', homed: false }, 'unhomed', ['reset', 'machine-unhomed', 'task ended', 'machine-cleared-unhomed']],
  ['running', { held: 'itself', why: 'The lid is open.' } as never, 'held:running', ['machine-held']],
  ['held:running', {}, 'running', ['machine-resumed']],
  ['jogging', {}, 'jogging', ['jog ended']],
  ['running', {}, 'running', []],
])('%s, and the machine says %j: %s', (bench, says, to, done) => {
  const { to: now, done: did } = seen(bench, says);
  expect(did).toEqual(done);
  expect(now).toBe(to);
}); // prettier-ignore

test('what was said before the last word about holding means nothing', () => {
  expect(seen('held:running', {}, false).to).toBe('held:running');
  expect(seen('jogging', {}, false).done).toEqual([]);
});

test('why a machine held by itself is said', () => {
  expect(seen('running', { held: 'itself', why: 'The lid is open.' } as never).problem).toBe('The lid is open.');
  expect(seen('running', { held: 'unheard' } as never).problem).toMatch(/heard nothing from Kerbe for two seconds/);
});

test('a run is on in these states, and in no other', () => {
  const own = ['running', 'paused', 'run-measuring', 'run-touching'];
  const all = [...own, ...own.map((state) => `held:${state}`), 'changing', 'changing-safe', 'changing-released', 'asking']; // prettier-ignore
  expect(STATES.filter(inRun).sort()).toEqual(all.sort());
});

test.each<[BenchState, Partial<MachineState>, boolean, BenchState, string[]]>([
  ['ready', { word: 'moving' }, false, 'left', ['hold', 'machine-moves']],
  ['unhomed', { word: 'jogging', homed: false }, false, 'left', ['hold', 'machine-moves']],
  ['tool-on', { word: 'probing' }, true, 'left', ['hold', 'machine-moves']],
  ['ready', {}, true, 'tool-on', ['tool-on']],
  ['tool-on', {}, true, 'tool-on', []],
  ['tool-on', {}, false, 'ready', ['tool-off']],
  ['tool-on', { word: 'unhomed', homed: false }, false, 'unhomed', ['tool-off-unhomed']],
  // Where it has to be off, what is on ends.
  ['homing', { word: 'homing' }, true, 'homing', ['task ended']],
  ['touching', { word: 'probing' }, true, 'touching', ['task ended']],
  ['going', { word: 'moving' }, true, 'going', ['task ended']],
  // In a run, and while it stops or lifts, it may be on.
  ['running', { word: 'moving' }, true, 'running', []],
  ['run-measuring', { word: 'moving' }, true, 'run-measuring', []],
  ['stopping', { word: 'slowing' }, true, 'stopping', []],
  ['lifting', { word: 'moving' }, true, 'lifting', []],
])('%s, and the machine says %j with its tool on (%s): %s', (bench, says, live, to, done) => {
  const before = { ...AT_REST, homed: says.homed ?? true } as MachineState;
  const { to: now, done: did } = seen(bench, says, true, live, before);
  expect(did).toEqual(done);
  expect(now).toBe(to);
});
