import type { BaseCut } from '../document/cut.ts';
import { kindOf } from '../cuts/kinds.ts';

/** With more cuts than this there are too many orders to try. */
const MOST_CUTS = 7;

/** Cuts from this rank on let parts come loose, and stay in the usual order at the end. */
const CUT_OUT = 3;

/**
 * The order of cuts with the fewest bit changes, among all that cut out last, and inside before outside; nothing where
 * none has fewer than there are now.
 *
 * @example pocket with 6 mm, carve with a V-bit after clearing with 6 mm: the pocket, then the carving, one change
 */
export function fewestChanges<C extends BaseCut>(cuts: readonly C[], now: number): C[] | undefined {
  if (cuts.length < 2 || cuts.length > MOST_CUTS) return undefined;
  const last = cuts.filter((cut) => rankOf(cut) >= CUT_OUT).sort((a, b) => rankOf(a) - rankOf(b));
  const free = cuts.filter((cut) => !last.includes(cut));
  let best: C[] | undefined;
  let least = now;
  const tried: C[] = [];
  const extend = () => {
    if (tried.length === free.length) {
      const order = [...tried, ...last];
      const changes = changesOf(order);
      if (changes < least) [best, least] = [order, changes];
      return;
    }
    for (const cut of free) {
      if (tried.includes(cut)) continue;
      tried.push(cut);
      extend();
      tried.pop();
    }
  };
  extend();
  return best;
}

const rankOf = (cut: BaseCut) => kindOf(cut).rank(cut);

function changesOf(cuts: readonly BaseCut[]): number {
  const bits = cuts.flatMap((cut) => [...(kindOf(cut).clearBits?.(cut) ?? []), cut.bit]);
  return bits.filter((bit, i) => i > 0 && bit !== bits[i - 1]).length;
}
