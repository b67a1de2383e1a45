/** What a router's bench can be at besides what every bench can be. */
export const ROUTER_STATES = [
  'zeroing',
  'measuring',
  'touching',
  'bit-touching',
  'run-measuring',
  'run-touching',
  'changing',
  'changing-safe',
  'changing-released',
  'asking',
] as const;

/** Those of them that can be held, and gone on with. */
export const ROUTER_HOLDABLE = [
  'zeroing',
  'measuring',
  'touching',
  'bit-touching',
  'run-measuring',
  'run-touching',
] as const satisfies readonly (typeof ROUTER_STATES)[number][];

export const ROUTER_COMMANDS = [
  'zero',
  'zero-here',
  'nudge-zero',
  'bit-in',
  'measure',
  'bit-changed',
  'bit-is-right',
  'spindle',
] as const;

/** Commands that are taken wherever it moves, as the feed is. */
export const ROUTER_OVERRIDES = { spindle: 'same' } as const;

/** Why answers are refused where nothing is asked. */
export const ROUTER_NOT_NOW = { 'bit-changed': 'no-change', 'bit-is-right': 'no-question' } as const;

export const ROUTER_EVENTS = ['change-asked', 'change-begins', 'bit-doubted'] as const;
