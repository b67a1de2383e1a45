import type { Cut } from '../document/cut.ts';

/**
 * Where a cut comes in the trade’s order: drill, carve, pocket, inside cut-outs, outside cut-outs (common practice: the
 * work is held longest). What clears for another cut comes just before it.
 */
export function rankOf(cut: Cut, clears: boolean): number {
  if (cut.kind === 'drill') return 0;
  if (cut.kind === 'v-carve') return clears ? 1 : 1.5;
  if (cut.kind === 'pocket') return clears ? 2 : 2.5;
  if (cut.kind === 'inlay') return cut.role === 'recess' ? 2.5 : 4;
  return cut.side === 'outside' ? 4 : 3;
}
