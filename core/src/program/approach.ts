import type { Stock } from '../document/stock.ts';
import { heightOverAll } from '../stock/keep-out.ts';

/**
 * Height at which a tool comes from anywhere, mm above the stock: over all that holds the work, and over what some cuts
 * may have freed, now or in a run before.
 *
 * Tools that stay at one height stay at that of the surface, as far as a path knows.
 *
 * @example approachOver({ keepOuts: [], lift: 5 }, [{}, { approach: 40 }]) // 40
 */
export function approachOver(
  { keepOuts, lift }: Pick<Stock, 'keepOuts' | 'lift'>,
  cuts: readonly { approach?: number; flat?: true }[],
): number {
  if (cuts.length > 0 && cuts.every(({ flat }) => flat)) return 0;
  return Math.max(heightOverAll(keepOuts, lift), ...cuts.map(({ approach = 0 }) => approach));
}
