import type { Opens, Tick } from '../kinds/bench-kind.ts';
import { benchKindOf } from '../kinds/bench-kinds.ts';
import type { RunnerState } from './runner-state.ts';

/** Opens the ticks that a happening leaves no truth in. */
export function clearTicks(state: RunnerState, by: Opens): void {
  if (!state.facts) return;
  for (const step of benchKindOf(state.facts).opened[by]) delete state.ticks[step];
}

/** Whether a step is ticked for a job. */
export function isTicked({ ticks }: Pick<RunnerState, 'ticks'>, { id, everyJob }: Tick, job: string): boolean {
  return ticks[id] !== undefined && (everyJob === true || ticks[id].job === job);
}

/**
 * Steps of a bench's list that a program wants ticked; what the bench does not have is not asked for.
 * @param turns whether any of its tools turns.
 */
export function stepsFor(bench: { kind: string }, turns: boolean): Tick[] {
  return benchKindOf(bench).ticks.filter(
    ({ only, where }) => (only === undefined || (only === 'turning') === turns) && (!where || where(bench)),
  );
}

/** Those of them that are not ticked for a job. */
export function openSteps(
  state: Pick<RunnerState, 'ticks'>,
  bench: { kind: string },
  job: string,
  turns: boolean,
): Tick[] {
  return stepsFor(bench, turns).filter((tick) => !isTicked(state, tick, job));
}
