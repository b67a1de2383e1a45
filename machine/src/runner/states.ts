import { KIND_COMMANDS, KIND_EVENTS, KIND_HOLDABLE, KIND_STATES } from '../kinds/names.ts';

/** What any bench can be at, whatever kind of machine stands on it. */
export const COMMON_STATES = [
  'off',
  'connecting',
  'lost',
  'left',
  'unhomed',
  'ready',
  'tool-on',
  'homing',
  'jogging',
  'going',
  'running',
  'paused',
  'stopping',
  'lifting',
  'alarm',
  'emergency',
] as const;
export type CommonState = (typeof COMMON_STATES)[number];

/** What only benches of one kind can be at. */
export type KindState = (typeof KIND_STATES)[number];
export type PlainState = CommonState | KindState;

/** States that can be held, and gone on with. */
export const HOLDABLE = [
  'unhomed',
  'ready',
  'homing',
  'going',
  'running',
  'paused',
  'lifting',
  ...KIND_HOLDABLE,
] as const;
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
  'go-to-zero',
  'use-here',
  'board-moved',
  'tick',
  'check',
  'run',
  'take-up',
  'hold',
  'resume',
  'confirm',
  'stop',
  'clear',
  'feed',
  ...KIND_COMMANDS,
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
  'machine-moves',
  'count-lost',
  'tool-on',
  'tool-off',
  'tool-off-unhomed',
  'probe-begins',
  'probe-ends',
  'pause-asked',
  'cutting-begins',
  'stood',
  'stood-unhomed',
  'stood-on',
  'lift-begins',
  'task-done',
  'task-done-unhomed',
  ...KIND_EVENTS,
] as const;
export type EventName = (typeof EVENTS)[number];
