import type { KindState } from '../runner/states.ts';
import type { StateRow } from '../runner/table-row.ts';
import type { KindAdds } from './kind-adds.ts';
import { LASER_ADDS } from './laser/rows.ts';
import { POINTING_ADDS } from './pointing/rows.ts';
import { PLASMA_ADDS, PLASMA_ROWS } from './plasma/rows.ts';
import { ROUTER_ADDS, ROUTER_ROWS } from './router/rows.ts';

/** The states of every kind of machine, and what each kind adds to the common ones. */
export const KIND_ROWS: Record<KindState, StateRow> = { ...ROUTER_ROWS, ...PLASMA_ROWS };
export const KINDS_ADD: readonly KindAdds[] = [ROUTER_ADDS, POINTING_ADDS, PLASMA_ADDS, LASER_ADDS];
