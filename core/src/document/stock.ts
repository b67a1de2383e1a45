import { z } from 'zod';
import { list } from '../schema/list.ts';
import { text } from '../schema/text.ts';
import { KeepOutSchema } from './keep-out.ts';

const Size = z.number().positive().max(5000);

export const StockSchema = z.object({
  material: text(60, 1),
  /** What is done to it before and after it is worked: steps, with semicolons between them. */
  before: text(300).optional(),
  after: text(300).optional(),
  /** Along x and y, mm. */
  length: Size,
  width: Size,
  /** Thickness at the lower left, lower right, upper right and upper left corner, mm. */
  corners: z.tuple([Size, Size, Size, Size]),
  zeroXY: z.enum(['lower-left', 'lower-right', 'upper-right', 'upper-left', 'centre']),
  zeroZ: z.enum(['stock', 'spoilboard']),
  holdDown: z.enum(['clamps', 'screws', 'vacuum', 'tape']),
  keepOuts: list(KeepOutSchema, 60),
  /** How high the bit goes over the stock between cuts, mm. */
  lift: z.number().positive().max(200),
  /** Thickness of the spoilboard, mm. */
  spoilboard: z.number().positive().max(200),
});

export type Stock = z.infer<typeof StockSchema>;
