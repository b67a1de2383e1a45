import type { Command, PageCommand } from './commands.ts';
import type { Reason } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';
import { answerTo, type CommandName } from './table.ts';

/** What a command needs besides a state that takes it; the first that is missing refuses it. */
const NEEDS: Partial<Record<CommandName, readonly Need[]>> = {
  home: ['spindle-standing'],
  step: ['spindle-standing'],
  jog: ['spindle-standing'],
  zero: ['bit-said', 'spindle-standing', 'circuit-open', 'circuit-tried'],
  'nudge-zero': ['z-set', 'spindle-standing'],
  'go-to-zero': ['circuit-open', 'plate-away', 'spindle-standing'],
  measure: ['setter', 'bit-said', 'circuit-open', 'plate-away', 'spindle-standing'],
  run: ['circuit-open', 'plate-away', 'spindle-standing', 'bit-said'],
  'take-up': ['circuit-open', 'plate-away', 'spindle-standing', 'bit-said'],
};

type Need = 'spindle-standing' | 'circuit-open' | 'circuit-tried' | 'bit-said' | 'z-set' | 'plate-away' | 'setter';

const MISSING: Record<Need, (state: RunnerState, bench: { setter: boolean }) => Reason | undefined> = {
  'spindle-standing': ({ machine }) => ((machine?.spindle ?? 0) > 0 ? 'spindle-turning' : undefined),
  'circuit-open': ({ machine }) => (machine?.touching ? 'circuit-closed' : undefined),
  'circuit-tried': ({ circuit }) => (circuit ? undefined : 'circuit-untried'),
  'bit-said': ({ bit }) => (bit ? undefined : 'no-bit'),
  'z-set': ({ zero }) => (!zero?.z ? 'no-zero' : zero.z.void ? 'zero-void' : undefined),
  // Only after the plate was in use is there something to take away.
  'plate-away': ({ ticks, zero }) => (ticks.plate || !zero ? undefined : 'plate-there'),
  setter: (_, { setter }) => (setter ? undefined : 'no-setter'),
};

/** Longest single steps, mm: what a hand may ask for and still stop with its eyes. */
const LONGEST = { x: 102, y: 102, z: 26 };

/** Why a command is refused although the bench's state would take it; nothing where it is not. */
export function whyNot(
  state: RunnerState,
  command: { command: CommandName } | Command,
  bench: { setter: boolean },
): Reason | undefined {
  if (command.command === 'step' && 'by' in command && Math.abs(command.by) > LONGEST[command.axis])
    return 'step-too-long';
  for (const need of NEEDS[command.command] ?? []) {
    const reason = MISSING[need](state, bench);
    if (reason) return reason;
  }
  return undefined;
}

/** Why a page’s button would be refused now, by the table and by what it needs: what greys it and says why. */
export function refusalOf(
  state: RunnerState,
  command: PageCommand['command'] | 'run' | 'take-up',
  bench: { setter: boolean },
): Reason | undefined {
  const answer = answerTo(state.bench, command);
  return 'refused' in answer ? answer.refused : whyNot(state, { command }, bench);
}

/** What each command needs besides the state, for docs/safety.md. */
export const NEEDED = NEEDS;
