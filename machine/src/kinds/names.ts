import { LASER_COMMANDS } from './laser/names.ts';
import { POINTING_COMMANDS } from './pointing/names.ts';
import { PLASMA_COMMANDS, PLASMA_HOLDABLE, PLASMA_STATES } from './plasma/names.ts';
import {
  ROUTER_COMMANDS,
  ROUTER_EVENTS,
  ROUTER_HOLDABLE,
  ROUTER_NOT_NOW,
  ROUTER_OVERRIDES,
  ROUTER_STATES,
} from './router/names.ts';

// What each kind of machine adds to the names that the runner goes by; a name belongs to one kind.
export const KIND_STATES = [...ROUTER_STATES, ...PLASMA_STATES] as const;
export const KIND_HOLDABLE = [...ROUTER_HOLDABLE, ...PLASMA_HOLDABLE] as const;
export const KIND_COMMANDS = [...ROUTER_COMMANDS, ...POINTING_COMMANDS, ...PLASMA_COMMANDS, ...LASER_COMMANDS] as const;
export const KIND_OVERRIDES = { ...ROUTER_OVERRIDES } as const;
export const KIND_NOT_NOW = { ...ROUTER_NOT_NOW } as const;
export const KIND_EVENTS = [...ROUTER_EVENTS] as const;
