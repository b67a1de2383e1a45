import { ROUTER_REASONS } from './router/reasons.ts';

/** What each kind of machine adds to the reasons for which a command is refused. */
export const KIND_REASONS = { ...ROUTER_REASONS } as const;
