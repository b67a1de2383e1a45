import type { Stock } from '../document/stock.ts';

/** The thickest corner sets zero and the through depth. */
export function thickest(stock: Stock): number {
  return Math.max(...stock.corners);
}

/** Thickest minus thinnest corner, mm. Corners of 4.98 and 4.93 mm give 0.05 mm. */
export function spread(stock: Stock): number {
  return thickest(stock) - Math.min(...stock.corners);
}

/** Thickness at a place, between the four corners (bilinear), mm. */
export function thicknessAt({ corners: [ll, lr, ur, ul], length, width }: Stock, x: number, y: number): number {
  const u = Math.min(1, Math.max(0, x / length));
  const v = Math.min(1, Math.max(0, y / width));
  return ll * (1 - u) * (1 - v) + lr * u * (1 - v) + ur * u * v + ul * (1 - u) * v;
}

/** Where the program's zero lies on the sheet, mm; z counts from the top of the thickest corner. */
export function zeroOf(stock: Stock): { x: number; y: number; z: number } {
  const { length, width, zeroXY } = stock;
  return {
    x: zeroXY === 'centre' ? length / 2 : zeroXY.endsWith('right') ? length : 0,
    y: zeroXY === 'centre' ? width / 2 : zeroXY.startsWith('upper') ? width : 0,
    z: stock.zeroZ === 'stock' ? 0 : -thickest(stock),
  };
}
