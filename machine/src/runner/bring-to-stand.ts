import type { Driver } from '../kinds/driver.ts';
import type { MachineWire } from '../link/machine-state.ts';
import type { RunnerState } from './runner-state.ts';
import type { EventName } from './states.ts';

/** What is stopped. */
export interface Stopping {
  /** The tool comes out of the work. */
  lift: boolean;
  state: RunnerState;
  event(name: EventName): void;
  signal: AbortSignal;
}

/**
 * After Stop: waits until the machine stands, lifts the tool or switches it off, and says what the bench is at. Where the
 * machine's count of lines was wrong the link is closed, since counts begin anew with a new one only.
 */
export async function bringToStand(
  wire: MachineWire,
  driver: Driver,
  { lift, state, event, signal }: Stopping,
): Promise<void> {
  const still = () => state.bench === 'stopping';
  await wire.rests(signal, () => !still());
  if (!still()) return;
  // What the machine complained of on the way is told already; an alarm is a state of its own.
  wire.forget();
  const fault = wire.countFault;
  if (fault) wire.ignoreCount();
  if (lift && wire.state!.homed) {
    state.doing = 'Lifting the bit';
    event('lift-begins');
    await driver.leaveWork(wire, signal);
    await wire.rests(signal);
  } else if (driver.live(wire.state!)) await driver.switchOff(wire, signal);
  if (fault) {
    wire.close('closed');
    state.problem = CLOSED_BY_COUNT;
    return;
  }
  const machine = await wire.fresh(signal);
  state.doing = undefined;
  const lifted = state.bench === 'lifting' || state.bench === 'held:lifting';
  if (!still() && !lifted) return;
  if (driver.live(machine)) event('stood-on');
  else if (lifted) event(machine.homed ? 'task-done' : 'task-done-unhomed');
  else event(machine.homed ? 'stood' : 'stood-unhomed');
}

const CLOSED_BY_COUNT =
  'The link was closed, since the machine’s count of lines could not be trusted any more. Look at the machine, then connect it again.';
