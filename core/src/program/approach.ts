import type { Stock } from '../document/stock.ts';
import { heightOverAll } from '../stock/keep-out.ts';

/**
 * Height at which a tool comes from anywhere, mm above the stock: over all that holds the work, and over what some cuts
 * may have freed, now or in a run before.
 *
 * @example approachOver({ keepOuts: [], lift: 5 }, [{}, { approach: 40 }]) // 40
 */
export function approachOver(
  { keepOuts, lift }: Pick<Stock, 'keepOuts' | 'lift'>,
  cuts: readonly { approach?: number }[],
): number {
  return Math.max(heightOverAll(keepOuts, lift), ...cuts.map(({ approach = 0 }) => approach));
}
