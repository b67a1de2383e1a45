import type { Stock } from '../document/stock.ts';
import { zeroOf } from './stock.ts';

/**
 * Where a place of the machine, from zero, lies on the sheet as it is drawn; the stock may lie turned on the bench.
 * @param turn of the stock about zero, radians.
 * @returns mm from the sheet’s lower left corner.
 * @example 10 to the front, on a stock that lies turned by a right angle: 10 to the left
 */
export function onSheet({ x, y }: { x: number; y: number }, stock: Stock, turn = 0): { x: number; y: number } {
  const zero = zeroOf(stock);
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  return { x: zero.x + x * cos + y * sin, y: zero.y + y * cos - x * sin };
}
