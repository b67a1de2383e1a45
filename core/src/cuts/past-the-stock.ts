import type { Stock } from '../document/stock.ts';
import { thickest } from '../stock/stock.ts';

/**
 * How far a through cut goes past the stock, mm: a hair with zero on the spoilboard, so that the board is not scored;
 * half a millimetre with zero on top, where the stock's thickness decides; nothing on tape, which is under it then and
 * would be cut with it (common practice: 0 on tape and glue, 0.05 to 1 mm else).
 */
const PAST_THE_STOCK = { spoilboard: 0.05, stock: 0.5 } as const;

/** Deeper than this into the spoilboard, mm, no through cut needs to go (common practice). */
export const DEEPEST_PAST = 1;

/** Wood kept under a floor, mm, when its depth is reduced for the stock. */
const FLOOR_KEPT = 2;

/** How deep a cut goes that goes just through, mm. */
export const rightThrough = (stock: Stock): number =>
  thickest(stock) + (stock.holdDown === 'tape' ? 0 : PAST_THE_STOCK[stock.zeroZ]);

/** How deep a floor may lie under which wood stays, mm. */
export const deepestFloor = (stock: Stock): number => Math.max(1, Math.min(...stock.corners) - FLOOR_KEPT);
