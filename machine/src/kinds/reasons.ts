import { LASER_REASONS } from './laser/reasons.ts';
import { POINTING_REASONS } from './pointing/reasons.ts';
import { PLASMA_REASONS } from './plasma/reasons.ts';
import { ROUTER_REASONS } from './router/reasons.ts';

/** What each kind of machine adds to the reasons for which a command is refused. */
export const KIND_REASONS = { ...ROUTER_REASONS, ...POINTING_REASONS, ...PLASMA_REASONS, ...LASER_REASONS } as const;
