import type { BaseBench } from '@kerbe/core/document/bench';
import type { BenchFacts } from '../runner/bench-facts.ts';
import type { ProgramOrder } from '../runner/commands.ts';
import type { Reason } from '../runner/reasons.ts';
import type { RunnerState } from '../runner/runner-state.ts';
import type { CommandName } from '../runner/states.ts';
import type { Basis } from '../runner/zero.ts';

/** What nothing at the machine senses and the operator ticks. */
export interface Tick {
  id: string;
  text: string;
  /** Once ticked it holds for every job. */
  everyJob?: true;
  /** Wanted only where a tool of the program turns, or only where none does. */
  only?: 'turning' | 'still';
  /** Wanted for a run with nothing on, too. */
  dry?: true;
  /** Wanted on benches that have what it is about; without it on all. */
  where?(bench: { kind: string }): boolean;
}

/** What opens ticks again. */
export type Opens = 'board-moved' | 'zero' | 'run';

/** What a command needs besides a state that takes it: its words for docs, and the reason where it is missing. */
export interface Need {
  id: string;
  missing(state: RunnerState): Reason | undefined;
}

/** What pages, server and runner have to know of a kind of machine. How it is driven, its driver says. */
export interface BenchKind {
  /** What the runner has to know of a bench of a job. */
  factsOf(bench: BaseBench): BenchFacts;
  /** What of the bench a zero rests on. */
  basisOf(bench: BaseBench): Pick<Basis, 'plate'>;
  /** Who switches the tool on: the program, or the operator when it asks. */
  switchedOnBy(bench: BaseBench): ProgramOrder['switchedOnBy'];
  /** Its own commands. */
  commands: readonly CommandName[];
  /** In this order; the first that is missing refuses the command. */
  needs: Partial<Record<CommandName, readonly Need[]>>;
  /** In the order of the work. */
  ticks: readonly Tick[];
  opened: Record<Opens, readonly string[]>;
  /** How a run is taken up: at a line of its program, or by a program of its own, which begins beside what was cut. */
  takenUp: 'line' | 'program';
  /** What keeps a program from being run on a bench, besides what is looked at for all kinds. */
  findings(order: ProgramOrder, facts: BenchFacts): string[];
  /** Where a tool is measured when it was changed in a run, machine coordinates, mm: from there it goes on. */
  measuredAt?(facts: BenchFacts): { x: number; y: number } | null;
  /** Whether the controller may be told to lead the tool beside its way (G41, G42). */
  leads?(facts: BenchFacts): boolean;
}
