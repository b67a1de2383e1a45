import { KIND_NOT_NOW, KIND_OVERRIDES } from '../kinds/names.ts';
import type { Reason } from './reasons.ts';
import type { BenchState, CommandName, EventName, HeldState } from './states.ts';

/** What may move from here on. Everything else stands. */
export const MOTIONS = {
  nothing: 'nothing',
  slowing: 'slowing to a stand, then nothing',
  home: 'slowly home, up first',
  hand: 'one bounded step, or as long as it is asked for',
  up: 'straight up: a spindle still turning, which then stops; an arc is out before',
  probe: 'slowly towards what it feels for: the plate, the setter, the sheet',
  around: 'up, across, to beside the plate, over the setter, the sheet or zero',
  program: 'what the program says',
  alone: 'nothing; left alone for the bench’s time with the spindle on, the machine lifts by itself and stops it',
} as const;
export type Motion = keyof typeof MOTIONS;

export interface StateRow {
  /** What it is, for people. */
  says: string;
  moves: Motion;
  /** Commands that are taken, and what the bench is at then; `same` stays. */
  takes: Partial<Record<CommandName, BenchState | 'same'>>;
  /** Why every other command is refused; single ones may have another reason. */
  else: Reason;
  refuses?: Partial<Record<CommandName, Reason>>;
  /** What may happen, and what the bench is at then. Anything else is a fault of ours, and said as such. */
  events: Partial<Record<EventName, BenchState>>;
  /** It stands with nothing on, as far as is known. Hold and Stop go to it all the same. */
  idle?: true;
  /** A run is on: it has not ended, whatever it waits for. */
  run?: true;
  /** The tool may stand in the work: stopped, it is lifted out. */
  lifts?: true;
  /** It stands: an emergency stop leaves no doubt where. */
  stands?: true;
  /** Hands may be at the tool. */
  hands?: true;
  /** Nothing is on at the tool: a spindle that turns or a beam that is ready was not asked for. */
  off?: true;
  /** An emergency stop or an alarm holds it: still pressed, or to be looked at and cleared. */
  stopped?: 'pressed' | 'released';
}

/** Said of any bench that is linked: nothing of this moves anything. */
export const ALWAYS = { take: 'same', give: 'same', keep: 'same', tick: 'same', check: 'same' } as const;
/** Taken wherever something moves. */
export const OVERRIDES = { feed: 'same', ...KIND_OVERRIDES } as const;
export const LINK = { 'link-lost': 'lost', 'link-closed': 'off' } as const;
export const BREAKS = {
  ...LINK,
  'machine-alarm': 'alarm',
  'machine-emergency': 'emergency',
  'count-lost': 'left',
} as const;
/** How a task that ends of itself leaves the bench. */
export const ENDS = { 'task-done': 'ready', 'task-done-unhomed': 'unhomed', 'machine-unhomed': 'unhomed' } as const;

/** Why commands that answer something are refused where nothing of the sort is asked. */
export const NOT_NOW = {
  confirm: 'no-pause',
  resume: 'not-held',
  clear: 'not-stopped',
  connect: 'connected',
  ...KIND_NOT_NOW,
} as const;

/** A task of the runner's own, outside a run: it may be held and stopped, and then stands where it is. */
export function task(says: string, moves: Motion, held: HeldState, events: StateRow['events'] = {}): StateRow {
  return {
    says,
    moves,
    takes: { ...ALWAYS, ...OVERRIDES, hold: held, stop: 'stopping' },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, ...ENDS, 'machine-held': held, ...events },
    off: true,
  };
}

/** A part of a run, which is stopped as a whole. */
export function runs(says: string, moves: Motion, held: HeldState, events: StateRow['events'] = {}): StateRow {
  const { off, ...row } = task(says, moves, held, { 'machine-unhomed': 'alarm', 'task-done': 'ready', ...events });
  return { ...row, else: 'running', run: off };
}
