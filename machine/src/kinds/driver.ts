import type { z } from 'zod';
import type { Coordinates } from '../link/wire.ts';
import type { BenchFacts } from '../runner/commands.ts';
import type { Basis, BitShape, Corner, Method } from '../runner/zero.ts';
import type { RouterMessage } from './router/messages.ts';
import type { Entry, RouterWire, Telling, WorkOffset } from './router/procedures.ts';

/**
 * What the runner asks of a kind of machine: what its controller says, and the procedures with which it is led. Each goes
 * through the wire and ends early where the signal says so.
 */
export interface Driver {
  /** Every message of its controller. */
  message: z.ZodType<RouterMessage>;
  /** Homes all axes and waits until that is done. */
  home(wire: RouterWire, signal: AbortSignal): Promise<void>;
  /** Goes to zero, ending at a height over it, mm. */
  goToZero(wire: RouterWire, lift: number, signal: AbortSignal): Promise<void>;
  /** Finds where zero lies, machine coordinates, mm. */
  findZero(
    wire: RouterWire,
    how: { method: Method; corner: Corner; basis: Basis; bit: BitShape },
    telling: Telling,
    signal: AbortSignal,
  ): Promise<WorkOffset>;
  /** Tells the controller where zero lies. */
  setOffset(wire: RouterWire, offset: WorkOffset, signal: AbortSignal): Promise<void>;
  /** Height at which the tool touches the setter, machine coordinates, mm. */
  measure(
    wire: RouterWire,
    setter: { x: number; y: number },
    telling: Telling,
    signal: AbortSignal,
  ): Promise<Coordinates['z']>;
  /** Brings the tool where hands reach it, with nothing turning. */
  toChangePlace(wire: RouterWire, bench: BenchFacts, signal: AbortSignal): Promise<void>;
  /** Brings the tool out of the work, and switches off what is on. */
  leaveWork(wire: RouterWire, signal: AbortSignal): Promise<void>;
  /** Switches off what is on, where the tool stands clear. */
  switchOff(wire: RouterWire, signal: AbortSignal): Promise<void>;
  /** Goes to where a run is taken up. */
  enterAt(wire: RouterWire, entry: Entry, signal: AbortSignal): Promise<void>;
}
