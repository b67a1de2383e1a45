import { KIND_ROWS, KINDS_ADD } from '../kinds/rows.ts';
import type { Reason } from './reasons.ts';
import {
  type BenchState,
  type CommandName,
  type CommonState,
  type EventName,
  type HeldState,
  HOLDABLE,
  type Holdable,
  type PlainState,
} from './states.ts';
import { ALWAYS, BREAKS, ENDS, LINK, NOT_NOW, OVERRIDES, runs, type StateRow, task } from './table-row.ts';

/** Of all kinds of machine together: the bench's own kind says which of its commands it takes. */
const added = <K extends keyof (typeof KINDS_ADD)[number]>(what: K) =>
  Object.assign({}, ...KINDS_ADD.map((kind) => kind[what])) as (typeof KINDS_ADD)[number][K];

const STANDING: StateRow['takes'] = {
  ...ALWAYS,
  ...OVERRIDES,
  disconnect: 'off',
  'board-moved': 'same',
  'use-here': 'same',
  stop: 'same',
  ...added('standing'),
};

/** Hold and Stop do not reach a machine without a link. */
const OUT_OF_REACH = { hold: 'out-of-reach', stop: 'out-of-reach' } as const;
/** It stood, and does something that nobody has asked it for. */
const UNASKED = { 'machine-moves': 'left', 'tool-on': 'tool-on' } as const;

const COMMON: Record<CommonState, StateRow> = {
  off: {
    says: 'not connected',
    moves: 'alone',
    takes: { connect: 'connecting' },
    else: 'not-connected',
    refuses: OUT_OF_REACH,
    events: {},
    idle: true,
  },
  connecting: {
    says: 'being connected',
    moves: 'nothing',
    // Both go to the machine with the first word, as soon as there is a link.
    takes: { connect: 'same', disconnect: 'off', hold: 'same', stop: 'same' },
    else: 'connecting',
    events: {
      ...LINK,
      'linked-unhomed': 'unhomed',
      'linked-ready': 'ready',
      'linked-held': 'left',
      'linked-alarm': 'alarm',
      'linked-emergency': 'emergency',
      'link-failed': 'off',
    },
    idle: true,
  },
  lost: {
    says: 'the link is lost; the machine holds by itself',
    moves: 'alone',
    takes: { connect: 'connecting', disconnect: 'off' },
    else: 'not-connected',
    refuses: OUT_OF_REACH,
    events: {},
    idle: true,
  },
  left: {
    says: 'left to itself in the midst of something; look at it, then press Stop',
    moves: 'alone',
    takes: { ...ALWAYS, hold: 'same', stop: 'stopping', disconnect: 'off' },
    else: 'left-behind',
    refuses: { connect: 'connected' },
    events: {
      ...BREAKS,
      'machine-unhomed': 'left',
    },
    lifts: true,
  },
  unhomed: {
    says: 'stands, not homed',
    moves: 'nothing',
    takes: { ...STANDING, home: 'homing', step: 'jogging', jog: 'jogging', hold: 'held:unhomed' },
    else: 'not-homed',
    refuses: NOT_NOW,
    events: { ...BREAKS, ...UNASKED, 'machine-held': 'held:unhomed' },
    idle: true,
    stands: true,
  },
  ready: {
    says: 'stands',
    moves: 'nothing',
    takes: {
      ...STANDING,
      home: 'homing',
      step: 'jogging',
      jog: 'jogging',
      'go-to-zero': 'going',
      run: 'running',
      'take-up': 'running',
      hold: 'held:ready',
      ...added('ready'),
    },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, ...UNASKED, 'machine-unhomed': 'unhomed', 'machine-held': 'held:ready' },
    idle: true,
    stands: true,
  },
  'tool-on': {
    says: 'stands, and its tool is on: a spindle turns, a beam is ready or an arc burns',
    moves: 'nothing',
    takes: { ...ALWAYS, ...OVERRIDES, hold: 'same', stop: 'stopping', disconnect: 'off' },
    else: 'tool-on',
    refuses: NOT_NOW,
    events: {
      ...BREAKS,
      'tool-off': 'ready',
      'tool-off-unhomed': 'unhomed',
      'machine-moves': 'left',
      'machine-held': 'left',
      'machine-unhomed': 'tool-on',
    },
    stands: true,
  },
  homing: task('homing', 'home', 'held:homing'),
  jogging: {
    says: 'moved by hand',
    moves: 'hand',
    takes: { ...ALWAYS, ...OVERRIDES, jog: 'same', hold: 'held:ready', stop: 'stopping' },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, ...ENDS, 'machine-held': 'held:ready' },
  },
  going: task('going to zero', 'around', 'held:going'),
  running: {
    ...runs('running', 'program', 'held:running', { 'pause-asked': 'paused', ...added('running') }),
    lifts: true,
  },
  paused: {
    ...runs('waiting for someone, as the program says', 'nothing', 'held:paused', { 'cutting-begins': 'running' }),
    takes: { ...ALWAYS, ...OVERRIDES, hold: 'held:paused', confirm: 'same', stop: 'stopping' },
    lifts: true,
  },
  stopping: {
    says: 'stopping',
    moves: 'slowing',
    takes: { ...ALWAYS, hold: 'same', stop: 'same', disconnect: 'off' },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, stood: 'ready', 'stood-unhomed': 'unhomed', 'stood-on': 'tool-on', 'lift-begins': 'lifting' },
  },
  lifting: {
    ...task('lifting the bit', 'up', 'held:lifting', { 'stood-on': 'tool-on' }),
    takes: { ...ALWAYS, hold: 'held:lifting', stop: 'stopping' },
    else: 'lifting',
    off: undefined,
  },
  alarm: {
    says: 'stopped by itself',
    moves: 'nothing',
    takes: { ...STANDING, hold: 'same', clear: 'same' },
    else: 'alarm',
    refuses: { connect: 'connected' },
    events: {
      ...LINK,
      'machine-alarm': 'alarm',
      'machine-emergency': 'emergency',
      'machine-cleared': 'ready',
      'machine-cleared-unhomed': 'unhomed',
      'machine-unhomed': 'alarm',
    },
    stands: true,
    stopped: 'released',
  },
  emergency: {
    says: 'the emergency stop is pressed',
    moves: 'nothing',
    takes: { ...STANDING, hold: 'same' },
    else: 'emergency',
    refuses: { connect: 'connected' },
    events: { ...LINK, 'machine-released': 'alarm', 'machine-unhomed': 'emergency' },
    stopped: 'pressed',
  },
};

const ROWS: Record<PlainState, StateRow> = { ...COMMON, ...KIND_ROWS };

/** Where a held state goes by Stop: a bit that may stand in the work is lifted by the task that was on, as unheld. */
function held(of: Holdable): StateRow {
  const row = ROWS[of];
  return {
    says: `held, while it was ${row.says}`,
    moves: 'nothing',
    takes: { ...ALWAYS, ...OVERRIDES, hold: 'same', resume: of, stop: 'stopping' },
    else: 'held',
    refuses: { connect: 'connected', clear: 'not-stopped' },
    ...(row.run && { run: true }),
    ...(row.lifts && { lifts: true }),
    events: {
      ...BREAKS,
      'machine-held': `held:${of}`,
      'machine-resumed': of,
      'machine-unhomed': of === 'unhomed' ? 'held:unhomed' : 'alarm',
      // What a task learns of its last move when it has been held already: it stays held, or waits for someone's hands.
      ...Object.fromEntries(
        Object.entries(row.events)
          .filter(([name]) => !/^(machine|link)-/.test(name))
          .map(([name, to]) => [name, HOLDABLE.includes(to as Holdable) ? `held:${to}` : to]),
      ),
    },
  };
}

/**
 * The bench's state machine, written down once: what each state takes, refuses and may turn into, and what may move in
 * it. The runner obeys it, pages grey their buttons by it, and docs/safety.md prints it.
 */
export const TABLE: Record<BenchState, StateRow> = {
  ...ROWS,
  ...(Object.fromEntries(HOLDABLE.map((of) => [`held:${of}`, held(of)])) as Record<HeldState, StateRow>),
};

export const STATES = Object.keys(TABLE) as BenchState[];

/**
 * What the table answers to a command: the state it leads to, or why it is refused.
 *
 * @example answerTo('changing-safe', 'bit-changed') // { refused: 'release-first' }
 */
export function answerTo(state: BenchState, command: CommandName): { to: BenchState } | { refused: Reason } {
  const row = TABLE[state];
  const to = row.takes[command];
  if (to) return { to: to === 'same' ? state : to };
  return { refused: row.refuses?.[command] ?? row.else };
}

/** What the table makes of an event; nothing where it cannot happen in this state. */
export function afterEvent(state: BenchState, event: EventName): BenchState | undefined {
  return TABLE[state].events[event];
}

/** Whether the bench stands with nothing on, so that Hold and Stop have nothing to do. */
export function atRest(state: BenchState): boolean {
  return TABLE[state].idle === true;
}

/** A run is on: it has not ended, whatever it waits for. */
export function inRun(state: BenchState): boolean {
  return TABLE[state].run === true;
}

/** Commands that anyone may always give. */
export const ANYONE: readonly CommandName[] = ['hold', 'stop', 'take'];
