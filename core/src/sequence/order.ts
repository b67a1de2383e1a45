import type { Cut } from '../job/job.ts';

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

export interface Ranked {
  rank: number;
  bit: string;
}

/** Parts in the trade’s order; among equals those with the bit that is in come first, then as the job lists them. */
export function orderParts<T extends Ranked>(parts: readonly T[]): T[] {
  const rest = [...parts];
  const out: T[] = [];
  while (rest.length) {
    const lowest = Math.min(...rest.map((part) => part.rank));
    const bit = out.at(-1)?.bit;
    const same = rest.findIndex((part) => part.rank === lowest && part.bit === bit);
    const pick = same >= 0 ? same : rest.findIndex((part) => part.rank === lowest);
    out.push(...rest.splice(pick, 1));
  }
  return out;
}
