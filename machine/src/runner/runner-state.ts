import type { RouterState } from '../link/messages.ts';

export type RunPhase = 'starting' | 'running' | 'bit-change' | 'measuring' | 'done' | 'stopped' | 'failed';

export interface RunState {
  id: string;
  job: string;
  jobId: string;
  hash: string;
  phase: RunPhase;
  /** Why it ended as it did, for `stopped` and `failed`. */
  why?: string;
  plannedMinutes: number;
  /** By the machine's clock; waiting for the operator is in it. */
  minutes: number;
  /** By the plan, at the present feed. */
  minutesLeft: number;
  /** Line of the program being made, and how many there are. */
  line: number;
  lines: number;
  cut: number;
  cuts: { title: string; from: number; to: number; bit: string }[];
  startedAt: string;
  endedAt?: string;
  /** The bit that is asked for now. */
  bit?: string;
}

/** All that the screens need to know about the bench; sent on every change. */
export interface RunnerState {
  link: 'off' | 'connecting' | 'on' | 'lost';
  machine?: RouterState;
  /** What it is busy with, in words. */
  doing?: string;
  /** The last problem, as a sentence. */
  problem?: string;
  /** The plate has been seen to close the touch circuit since the link was made. */
  plateSeen: boolean;
  zero?: { at: string; method: string; bit: string };
  run?: RunState;
  /** What someone beside the simulated machine would see. */
  look?: Record<string, unknown>;
}
