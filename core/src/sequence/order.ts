import type { Cut } from '../job/job.ts';

/** Carve before inside cut-outs, inside before outside (common practice: the work is held longest). */
function rank(cut: Cut): number {
  if (cut.kind === 'v-carve') return 0;
  return cut.side === 'inside' ? 1 : 2;
}

/** Cuts in the trade's order; among equals those with the bit that is in come first, then as the job lists them. */
export function orderCuts(cuts: readonly Cut[]): Cut[] {
  const rest = [...cuts];
  const out: Cut[] = [];
  while (rest.length) {
    const lowest = Math.min(...rest.map(rank));
    const bit = out.at(-1)?.bit;
    const index = Math.max(
      rest.findIndex((cut) => rank(cut) === lowest && cut.bit === bit),
      -1,
    );
    const pick = index >= 0 ? index : rest.findIndex((cut) => rank(cut) === lowest);
    out.push(...rest.splice(pick, 1));
  }
  return out;
}
