import type { MachineState } from '../link/machine-state.ts';
import type { BenchFacts } from './bench-facts.ts';
import type { BitShape, Zero } from './zero.ts';
import type { BenchState } from './states.ts';

export type RunPhase = 'on' | 'done' | 'stopped' | 'failed' | 'lost';

/** A run as it stands; told on every change, and kept at its end. */
export interface RunState {
  id: string;
  job: string;
  jobId: string;
  hash: string;
  phase: RunPhase;
  /** Why it ended as it did. */
  why?: string;
  plannedMinutes: number;
  /** Nothing is on: a pointer goes where the tool would. */
  dry: boolean;
  /** By the machine's clock: at the program, and all else (held, bit changes, questions). */
  minutes: number;
  waited: number;
  /** By the plan, at the present feed. */
  minutesLeft: number;
  /** The last line of the program whose moves are all made, counted from 1, and how many there are. */
  line: number;
  lines: number;
  /** It ended when nobody knew any more which line the machine was at: it cannot be taken up at one. */
  lineUnknown?: true;
  /** Where it ended, from zero, mm; the tool may have come up there since. */
  at?: { x: number; y: number };
  /** The line it began at, and the run it takes up, where it does. */
  from?: number;
  takesUp?: string;
  cut: number;
  cuts: { title: string; from: number; to: number; bit: BitShape }[];
  startedAt: string;
  endedAt?: string;
  /** The bit that is asked for now. */
  bit?: BitShape;
  /** What the program asks of whoever waits for it (M0). */
  prompt?: string;
}

/** Asked when a bit's length makes one wonder. */
export type BitQuestion =
  { about: 'same-length'; bit: BitShape; before: BitShape } | { about: 'far-from-own'; bit: BitShape; off: number };

/** What the checks of a program found on this bench, from this zero. */
export interface Checked {
  token: string;
  hash: string;
  jobId: string;
  revision: string;
  at: string;
  lines: number;
  /** What was looked at, one sentence each. */
  looked: string[];
  /** What keeps it from being run. */
  findings: string[];
  /** The bit it begins with. */
  bit: BitShape;
}

/** All that the screens need to know about a bench; sent on every change. */
export interface RunnerState {
  bench: BenchState;
  /** What it was told of the bench when it was connected last. */
  facts?: BenchFacts;
  machine?: MachineState;
  /** What it is busy with, in words. */
  doing?: string;
  /** The last problem, as a sentence. */
  problem?: string;
  /** When the touch circuit was last sensed to close, since the link was made. */
  circuit?: string;
  zero?: Zero;
  /** Where zero lies, machine coordinates, mm. */
  origin?: { x: number; y: number; z: number };
  bit?: BitShape & { at: string; by: string };
  /** What the operator has ticked at Set-up, by whom and when. */
  ticks: Record<string, { at: string; by: string; job: string }>;
  operator?: { page: string; name: string };
  /** Who asks to take over, and when that is given if nobody answers. */
  asks?: { page: string; name: string; until: string };
  question?: BitQuestion;
  checked?: Checked;
  run?: RunState;
  /** What is known of runs waits to be written down: the disk is full. */
  unwritten?: boolean;
}
