/* eslint max-lines: off -- one table: every state of a bench and what it takes */
import type { Reason } from './reasons.ts';

/** What a bench is at, whatever kind of machine stands on it. */
export type PlainState =
  | 'off'
  | 'connecting'
  | 'lost'
  | 'left'
  | 'unhomed'
  | 'ready'
  | 'homing'
  | 'jogging'
  | 'going'
  | 'zeroing'
  | 'measuring'
  | 'touching'
  | 'bit-touching'
  | 'running'
  | 'paused'
  | 'run-measuring'
  | 'run-touching'
  | 'changing'
  | 'changing-safe'
  | 'changing-released'
  | 'asking'
  | 'stopping'
  | 'lifting'
  | 'alarm'
  | 'emergency';

/** States that can be held, and gone on with. */
export const HOLDABLE = [
  'unhomed',
  'ready',
  'homing',
  'going',
  'zeroing',
  'measuring',
  'touching',
  'bit-touching',
  'running',
  'paused',
  'run-measuring',
  'run-touching',
  'lifting',
] as const satisfies readonly PlainState[];
export type Holdable = (typeof HOLDABLE)[number];
export type HeldState = `held:${Holdable}`;
export type BenchState = PlainState | HeldState;

export const COMMANDS = [
  'connect',
  'disconnect',
  'take',
  'give',
  'keep',
  'home',
  'step',
  'jog',
  'zero',
  'nudge-zero',
  'go-to-zero',
  'use-here',
  'board-moved',
  'bit-in',
  'measure',
  'tick',
  'check',
  'run',
  'take-up',
  'hold',
  'resume',
  'confirm',
  'bit-changed',
  'bit-is-right',
  'stop',
  'clear',
  'feed',
  'spindle',
] as const;
export type CommandName = (typeof COMMANDS)[number];

export const EVENTS = [
  'linked-unhomed',
  'linked-ready',
  'linked-held',
  'linked-alarm',
  'linked-emergency',
  'link-failed',
  'link-closed',
  'link-lost',
  'machine-alarm',
  'machine-emergency',
  'machine-released',
  'machine-cleared',
  'machine-cleared-unhomed',
  'machine-held',
  'machine-resumed',
  'machine-unhomed',
  'probe-begins',
  'probe-ends',
  'pause-asked',
  'change-asked',
  'change-begins',
  'bit-doubted',
  'cutting-begins',
  'stood',
  'stood-unhomed',
  'lift-begins',
  'task-done',
  'task-done-unhomed',
] as const;
export type EventName = (typeof EVENTS)[number];

/** What may move from here on. Everything else stands. */
export const MOTIONS = {
  nothing: 'nothing',
  slowing: 'slowing to a stand, then nothing',
  home: 'slowly home, up first',
  hand: 'one bounded step, or as long as it is asked for',
  up: 'straight up, the spindle still turning; then the spindle stops',
  probe: 'slowly towards the plate or the setter',
  around: 'up, across, to beside the plate, over the setter or over zero',
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
}

/** Said of any bench that is linked: nothing of this moves anything. */
const ALWAYS = { take: 'same', give: 'same', keep: 'same', tick: 'same', check: 'same' } as const;
const OVERRIDES = { feed: 'same', spindle: 'same' } as const;
const LINK = { 'link-lost': 'lost', 'link-closed': 'off' } as const;
const BREAKS = { ...LINK, 'machine-alarm': 'alarm', 'machine-emergency': 'emergency' } as const;
/** How a task that ends of itself leaves the bench. */
const ENDS = { 'task-done': 'ready', 'task-done-unhomed': 'unhomed', 'machine-unhomed': 'unhomed' } as const;
const NOT_NOW = {
  confirm: 'no-pause',
  'bit-changed': 'no-change',
  'bit-is-right': 'no-question',
  resume: 'not-held',
  clear: 'not-stopped',
  connect: 'connected',
} as const;

/** A task of the runner's own, outside a run: it may be held and stopped, and then stands where it is. */
function task(says: string, moves: Motion, held: HeldState, events: StateRow['events'] = {}): StateRow {
  return {
    says,
    moves,
    takes: { ...ALWAYS, ...OVERRIDES, hold: held, stop: 'stopping' },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, ...ENDS, 'machine-held': held, ...events },
  };
}

/** A part of a run: stopped while the bit may stand in the work, it is lifted. */
function runs(says: string, moves: Motion, held: HeldState, events: StateRow['events'] = {}): StateRow {
  return {
    ...task(says, moves, held, { 'machine-unhomed': 'alarm', 'task-done': 'ready', ...events }),
    else: 'running',
  };
}

const STANDING: StateRow['takes'] = {
  ...ALWAYS,
  ...OVERRIDES,
  disconnect: 'off',
  'board-moved': 'same',
  'bit-in': 'same',
  'use-here': 'same',
  stop: 'same',
};

const ROWS: Record<PlainState, StateRow> = {
  off: {
    says: 'not connected',
    moves: 'alone',
    takes: { connect: 'connecting' },
    else: 'not-connected',
    events: {},
  },
  connecting: {
    says: 'being connected',
    moves: 'nothing',
    takes: { connect: 'same', disconnect: 'off' },
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
  },
  lost: {
    says: 'the link is lost; the machine holds by itself',
    moves: 'alone',
    takes: { connect: 'connecting', disconnect: 'off' },
    else: 'not-connected',
    events: {},
  },
  left: {
    says: 'linked again; the machine holds where it was left',
    moves: 'alone',
    takes: { ...ALWAYS, hold: 'same', stop: 'stopping', disconnect: 'off' },
    else: 'left-behind',
    refuses: { connect: 'connected' },
    events: {
      ...BREAKS,
      stood: 'ready',
      'stood-unhomed': 'unhomed',
      'machine-unhomed': 'unhomed',
    },
  },
  unhomed: {
    says: 'stands, not homed',
    moves: 'nothing',
    takes: { ...STANDING, home: 'homing', step: 'jogging', jog: 'jogging', hold: 'held:unhomed' },
    else: 'not-homed',
    refuses: NOT_NOW,
    events: { ...BREAKS, 'machine-held': 'held:unhomed' },
  },
  ready: {
    says: 'stands',
    moves: 'nothing',
    takes: {
      ...STANDING,
      home: 'homing',
      step: 'jogging',
      jog: 'jogging',
      zero: 'zeroing',
      'nudge-zero': 'going',
      'go-to-zero': 'going',
      measure: 'measuring',
      run: 'running',
      'take-up': 'running',
      hold: 'held:ready',
    },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, 'machine-unhomed': 'unhomed', 'machine-held': 'held:ready' },
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
  zeroing: task('finding zero', 'around', 'held:zeroing', { 'probe-begins': 'touching' }),
  touching: task('feeling for the plate', 'probe', 'held:touching', { 'probe-ends': 'zeroing' }),
  measuring: task('measuring the bit', 'around', 'held:measuring', { 'probe-begins': 'bit-touching' }),
  'bit-touching': task('feeling for the setter', 'probe', 'held:bit-touching', { 'probe-ends': 'measuring' }),
  running: runs('running', 'program', 'held:running', {
    'pause-asked': 'paused',
    'change-asked': 'run-measuring',
  }),
  paused: {
    ...runs('waiting for someone, as the program says', 'nothing', 'held:paused', { 'cutting-begins': 'running' }),
    takes: { ...ALWAYS, ...OVERRIDES, hold: 'held:paused', confirm: 'same', stop: 'stopping' },
  },
  'run-measuring': runs('measuring for a bit change', 'around', 'held:run-measuring', {
    'probe-begins': 'run-touching',
    'change-begins': 'changing',
    'bit-doubted': 'asking',
    'cutting-begins': 'running',
  }),
  'run-touching': runs('feeling for the setter', 'probe', 'held:run-touching', { 'probe-ends': 'run-measuring' }),
  changing: {
    says: 'waiting for a bit; hands may be at the collet',
    moves: 'nothing',
    takes: { ...ALWAYS, hold: 'same', 'bit-changed': 'run-measuring', stop: 'ready' },
    else: 'bit-change',
    refuses: { ...NOT_NOW, 'bit-changed': 'no-change' },
    events: {
      ...LINK,
      'machine-alarm': 'changing-released',
      'machine-emergency': 'changing-safe',
      'machine-unhomed': 'alarm',
    },
  },
  'changing-safe': {
    says: 'waiting for a bit, made safe by the emergency stop',
    moves: 'nothing',
    takes: { ...ALWAYS, hold: 'same', stop: 'emergency' },
    else: 'bit-change',
    refuses: { ...NOT_NOW, 'bit-changed': 'release-first', clear: 'emergency' },
    events: { ...LINK, 'machine-released': 'changing-released', 'machine-unhomed': 'emergency' },
  },
  'changing-released': {
    says: 'waiting for a bit; the emergency stop is released and not cleared',
    moves: 'nothing',
    takes: { ...ALWAYS, hold: 'same', clear: 'same', stop: 'alarm' },
    else: 'bit-change',
    refuses: { ...NOT_NOW, 'bit-changed': 'clear-first' },
    events: {
      ...LINK,
      'machine-emergency': 'changing-safe',
      'machine-alarm': 'changing-released',
      'machine-cleared': 'changing',
      'machine-cleared-unhomed': 'alarm',
      'machine-unhomed': 'alarm',
    },
  },
  asking: {
    says: 'asking whether the right bit is in; hands may be at the collet',
    moves: 'nothing',
    takes: { ...ALWAYS, hold: 'same', 'bit-is-right': 'run-measuring', 'bit-changed': 'run-measuring', stop: 'ready' },
    else: 'bit-change',
    refuses: NOT_NOW,
    events: {
      ...LINK,
      'machine-alarm': 'changing-released',
      'machine-emergency': 'changing-safe',
      'machine-unhomed': 'alarm',
    },
  },
  stopping: {
    says: 'stopping',
    moves: 'slowing',
    takes: { ...ALWAYS, hold: 'same', stop: 'same' },
    else: 'busy',
    refuses: NOT_NOW,
    events: { ...BREAKS, stood: 'ready', 'stood-unhomed': 'unhomed', 'lift-begins': 'lifting' },
  },
  lifting: {
    ...task('lifting the bit', 'up', 'held:lifting'),
    takes: { ...ALWAYS, hold: 'held:lifting', stop: 'same' },
    else: 'lifting',
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
  },
  emergency: {
    says: 'the emergency stop is pressed',
    moves: 'nothing',
    takes: { ...STANDING, hold: 'same' },
    else: 'emergency',
    refuses: { connect: 'connected' },
    events: { ...LINK, 'machine-released': 'alarm', 'machine-unhomed': 'emergency' },
  },
};

/** Where a held state goes by Stop: a bit that may stand in the work is lifted by the task that was on, as unheld. */
function held(of: Holdable): StateRow {
  const row = ROWS[of];
  return {
    says: `held: ${row.says}`,
    moves: 'nothing',
    takes: { ...ALWAYS, ...OVERRIDES, hold: 'same', resume: of, stop: 'stopping' },
    else: 'held',
    refuses: { connect: 'connected', clear: 'not-stopped' },
    events: {
      ...BREAKS,
      'machine-held': `held:${of}`,
      'machine-resumed': of,
      'machine-unhomed': of === 'unhomed' ? 'held:unhomed' : 'alarm',
      // What a task was told just before it was held.
      ...(row.events['probe-begins'] ? { 'probe-begins': `held:${row.events['probe-begins']}` as BenchState } : {}),
      ...(row.events['probe-ends'] ? { 'probe-ends': `held:${row.events['probe-ends']}` as BenchState } : {}),
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
  return ['off', 'connecting', 'lost', 'unhomed', 'ready'].includes(state);
}

/** A run is on: it has not ended, whatever it waits for. */
export function inRun(state: BenchState): boolean {
  const plain = state.replace(/^held:/, '') as PlainState;
  return [
    'running',
    'paused',
    'run-measuring',
    'run-touching',
    'changing',
    'changing-safe',
    'changing-released',
    'asking',
  ].includes(plain);
}

/** Commands that anyone may always give. */
export const ANYONE: readonly CommandName[] = ['hold', 'stop', 'take'];
