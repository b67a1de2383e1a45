import type { Need } from '../kinds/bench-kind.ts';
import { benchKindOf } from '../kinds/bench-kinds.ts';
import { KIND_COMMANDS } from '../kinds/names.ts';
import type { Command, PageCommand } from './commands.ts';
import type { Reason } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';
import type { CommandName } from './states.ts';
import { answerTo } from './table.ts';

/** Longest single steps, mm: what a hand may ask for and still stop with its eyes. */
const LONGEST = { x: 102, y: 102, z: 26 };

/** Why a command is refused although the bench's state would take it; nothing where it is not. */
export function whyNot(state: RunnerState, command: { command: CommandName } | Command): Reason | undefined {
  if (command.command === 'step' && 'by' in command && Math.abs(command.by) > LONGEST[command.axis])
    return 'step-too-long';
  // What is not linked has no needs: its state takes nothing but being connected.
  if (!state.facts) return undefined;
  if (command.command === 'resume' && state.machine?.gaveUp) return 'given-up';
  const kind = benchKindOf(state.facts);
  const { command: name } = command;
  if ((KIND_COMMANDS as readonly CommandName[]).includes(name) && !kind.commands.includes(name)) return 'other-machine';
  for (const need of kind.needs[name] ?? ([] as Need[])) {
    const reason = need.missing(state);
    if (reason) return reason;
  }
  return undefined;
}

/** Why a page’s button would be refused now, by the table and by what it needs: what greys it and says why. */
export function refusalOf(state: RunnerState, command: PageCommand['command'] | 'run' | 'take-up'): Reason | undefined {
  const answer = answerTo(state.bench, command);
  return 'refused' in answer ? answer.refused : whyNot(state, { command });
}
