import type { MachineState, MachineWire } from '../link/machine-state.ts';
import type { Driver } from '../kinds/driver.ts';
import { MachineStopped, RESTING } from '../link/wire.ts';
import type { RunnerState } from './runner-state.ts';
import type { EventName } from './states.ts';
import { afterEvent, TABLE } from './table.ts';
import type { Change } from './zero.ts';

/** What is done about what a machine says. */
export interface Observer {
  state: RunnerState;
  wire: MachineWire;
  driver: Pick<Driver, 'live'>;
  /** The wire’s mark of the last word of this runner about holding or moving by hand. */
  holdMark: number;
  event(name: EventName): void;
  happened(change: Change): void;
  endTask(reason: Error): void;
  /** A task is on; where none is, a press of a hand alone moves the machine. */
  busy(): boolean;
  endJog(machine: MachineState): void;
}

/** How a bench begins whose machine says this when it is linked. */
export function linkedAs(machine: MachineState, { live }: Pick<Driver, 'live'>): EventName {
  const { word, homed, held } = machine;
  if (word === 'emergency') return 'linked-emergency';
  if (word === 'alarm') return 'linked-alarm';
  // It rests only where it neither moves, nor waits, nor has anything on.
  if (held || (word !== 'idle' && word !== 'unhomed') || live(machine)) return 'linked-held';
  return homed ? 'linked-ready' : 'linked-unhomed';
}

/** Takes what a machine says of itself as events of the table: lost homes, stops and what ends them, holds. */
export function observe(machine: MachineState, before: MachineState | undefined, seen: Observer): void {
  const { state, wire } = seen;
  const bench = () => state.bench;
  const row = () => TABLE[bench()];
  const stopped = machine.word === 'emergency' || machine.word === 'alarm';
  if (before?.homed && !machine.homed) {
    seen.happened(machine.word === 'unhomed' ? 'reset' : 'position-lost');
    if (!stopped && bench() !== 'stopping') {
      seen.event('machine-unhomed');
      seen.endTask(new MachineStopped('The machine has lost its home position; was it switched off?'));
    }
  }
  if (machine.word === 'emergency' && row().stopped !== 'pressed') {
    seen.happened(row().stands && machine.homed ? 'emergency-at-rest' : 'position-lost');
    seen.event('machine-emergency');
    // With hands at the tool it is how the machine is made safe, and what waits for them goes on waiting.
    if (row().stopped !== 'pressed' || !row().hands)
      seen.endTask(new MachineStopped('The emergency stop was pressed.'));
  } else if (machine.word === 'alarm') {
    if (row().stopped === 'pressed') seen.event('machine-released');
    else if (row().stopped !== 'released') {
      if (!row().hands) seen.happened('position-lost');
      seen.event('machine-alarm');
      if (bench() === 'alarm') seen.endTask(new MachineStopped(state.problem ?? 'The machine has stopped.'));
    }
  } else if (!stopped) {
    if (row().stopped === 'pressed') seen.event('machine-released');
    if (row().stopped === 'released') {
      wire.forget();
      seen.event(machine.homed ? 'machine-cleared' : 'machine-cleared-unhomed');
      if (row().stopped === 'released') seen.event(machine.homed ? 'machine-cleared' : 'machine-cleared-unhomed');
    }
  }
  if (!stopped) unasked(machine, seen);
  const held = bench().startsWith('held:');
  if (machine.held && !held && !stopped && afterEvent(bench(), 'machine-held')) {
    if (machine.held === 'unheard') state.problem = UNHEARD;
    if (machine.held === 'itself') state.problem = machine.why;
    seen.event('machine-held');
  } else if (!machine.held && held && wire.since(seen.holdMark) && !stopped) seen.event('machine-resumed');
  if (
    bench() === 'jogging' &&
    !seen.busy() &&
    wire.since(seen.holdMark) &&
    machine.word !== 'jogging' &&
    machine.word !== 'slowing'
  )
    seen.endJog(machine);
}

/** What it does that nobody has asked it for, where it should stand or its tool be off. */
function unasked(machine: MachineState, { state, wire, driver, event, endTask }: Observer): void {
  const row = () => TABLE[state.bench];
  const live = driver.live(machine);
  if (state.bench === 'tool-on' && !live) event(machine.homed ? 'tool-off' : 'tool-off-unhomed');
  if (!RESTING.includes(machine.word) && machine.word !== 'held' && afterEvent(state.bench, 'machine-moves')) {
    wire.control('hold');
    state.problem = MOVES_UNASKED;
    event('machine-moves');
  } else if (live && afterEvent(state.bench, 'tool-on')) event('tool-on');
  else if (live && row().off) endTask(new MachineStopped(ON_UNASKED));
}

const MOVES_UNASKED =
  'The machine moves although nobody has asked it to, and is held. Look what it does; then press Stop.';
const ON_UNASKED =
  'The tool was switched on at the machine while it should be off, so what was being done has ended. Switch it off there; then begin again.';
const UNHEARD =
  'The machine heard nothing from Kerbe for two seconds and held by itself. Look at it, then go on or stop.';
