import type { Component } from 'svelte';
import type { BaseBench } from '@kerbe/core/document/bench';
import type { Job } from '@kerbe/core/document/job';
import type { BaseTool } from '@kerbe/core/document/tool';
import type { PageCommand } from '@kerbe/machine/runner/commands';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';

/** A line of the list at Set-up. */
export interface SetupLine {
  id: string;
  text: string;
  /** What it rests on, of a line that is not ticked here. */
  rests?: { word: string; good: boolean };
}

export interface SetupGiven {
  job: Job;
  /** The tool of the first cut. */
  tool: BaseTool | undefined;
  /** A line for the machine, its home or its zero, which every list has. */
  common: { on: SetupLine; home: SetupLine; zero: SetupLine };
  /** What was said or sensed by the bench, where it is linked. */
  state: RunnerState | undefined;
}

/** Something that is set over a run while it goes. */
export interface Override {
  name: string;
  less: string;
  more: string;
  /** Per cent. */
  now: number;
  from: number;
  to: number;
  command(percent: number): PageCommand;
}

/** What the pages of a kind of machine are made of. */
export interface BenchPages {
  /** “Connect the stand-in router”. */
  called: string;
  /** The list at Set-up, in the order of the work. */
  list(given: SetupGiven): SetupLine[];
  /** At Set-up under the list, where it is linked: the tool, moving by hand, zero. */
  AtSetup: Component;
  /** In a run, over all else: what it waits for. */
  InRun: Component;
  /** What is done after a run, a sentence or two. */
  afterwards: string;
  /** What is waited for after a run. */
  After?: Component<{ ended: string }>;
  /** Beside what the program asks for: what nobody but a hand at the stand-in does. */
  Hands: Component<{ tool?: BaseTool }>;
  /** What is seen of the stand-in. */
  Window: Component;
  overrides(state: RunnerState): Override[];
  /** “18,000 rpm”: what is on now. */
  on(bench: BaseBench, state: RunnerState): string;
}
