import type { z } from 'zod';
import type { MachineMessage, MachineState } from '../link/machine-state.ts';
import type { Wire } from '../link/wire.ts';
import type { BenchFacts } from '../runner/bench-facts.ts';
import type { From, ProgramOrder } from '../runner/commands.ts';
import type { LengthBook } from '../runner/length-book.ts';
import type { ProgramPlace } from '../runner/program-facts.ts';
import type { RunnerState, RunState } from '../runner/runner-state.ts';
import type { EventName } from '../runner/states.ts';
import type { BitShape, Change } from '../runner/zero.ts';
import type { KindCommand } from './commands.ts';

/** What a procedure tells whoever started it. */
export interface Telling {
  say(doing: string): void;
  /** A probe move begins, or the tool has come away again from what it touched. */
  probing(on: boolean): void;
}

/** What the runner lends to a kind of machine for its own commands and its part of a run. */
export interface AtBench<S extends MachineState = MachineState> {
  state: RunnerState;
  facts: BenchFacts;
  lengths: LengthBook;
  telling: Telling;
  changed(): void;
  /** What becomes of zero by a happening. */
  happened(change: Change): void;
  /** A word to the controller, at once. */
  control(word: string): void;
  /** Starts something that takes time, as the table says for the command that is being carried out. */
  begin(doing: string, work: (wire: Wire<S>, signal: AbortSignal) => Promise<void>): void;
  /** Passes the command on to the run, which waits for it. */
  answer(): void;
}

/** A run that waits for another tool. */
export interface ToolChange<S extends MachineState = MachineState> extends Pick<
  AtBench<S>,
  'state' | 'facts' | 'lengths' | 'telling' | 'changed' | 'happened'
> {
  run: RunState;
  event(name: EventName): void;
  /** Waits until one of these commands is given. */
  answered(answers: readonly KindCommand['command'][], signal: AbortSignal): Promise<KindCommand['command']>;
}

/**
 * What the runner asks of a kind of machine: what its controller says, and the procedures with which it is led. Each goes
 * through the wire and ends early where the signal says so. `S` is what its controller tells of itself.
 */
export interface Driver<S extends MachineState = MachineState> {
  /** Every message of its controller. */
  message: z.ZodType<MachineMessage>;
  /** Its first word to the controller when the link stands. */
  greet(wire: Wire<S>, facts: BenchFacts): void;
  /** What follows from what the controller tells, besides what follows for every kind. */
  noted(state: RunnerState, machine: S): void;
  /** Where what was on went out in a cut, machine coordinates, mm, where the tool has moved on since. */
  wentOutAt?(machine: S): { x: number; y: number } | undefined;
  /** Something that can hurt is on: a spindle turns, a beam or an arc burns. */
  live(machine: S): boolean;
  /** Sets what someone set over another run back to what programs say. */
  plain(wire: Wire<S>): void;
  /** Homes all axes and waits until that is done. */
  home(wire: Wire<S>, signal: AbortSignal): Promise<void>;
  /** Goes to zero, ending at a height over it, mm. */
  goToZero(wire: Wire<S>, lift: number, signal: AbortSignal): Promise<void>;
  /** Brings the tool out of the work, and switches off what is on. */
  leaveWork(wire: Wire<S>, signal: AbortSignal): Promise<void>;
  /** Switches off what is on, where the tool stands clear. */
  switchOff(wire: Wire<S>, signal: AbortSignal): Promise<void>;
  /** Asked of the operator before a run is taken up at a place; nothing where nobody has to do anything. */
  askBeforeEntering(place: ProgramPlace, order: ProgramOrder): string | undefined;
  /** Goes to where a run is taken up, by the plunge feed of the cut there, mm/min. */
  enterAt(wire: Wire<S>, place: ProgramPlace, order: ProgramOrder, plunge: number, signal: AbortSignal): Promise<void>;
  /** Its power is a word of every move: where a run is taken up, the first move says it again. */
  powerInMoves?: true;
  /** Puts another tool in, in a run. */
  changeTool(wire: Wire<S>, wanted: BitShape, change: ToolChange<S>, signal: AbortSignal): Promise<void>;
  /** Carries out one of its own commands, which the table has taken. @throws {CommandRefused} */
  own(command: KindCommand, from: From, at: AtBench<S>): void;
}
