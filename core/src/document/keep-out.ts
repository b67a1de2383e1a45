import { z } from 'zod';
import { text } from '../schema/text.ts';

export const KeepOutSchema = z.object({
  id: text(40, 1),
  kind: z.enum(['clamp', 'screw', 'pin']),
  /** Lower left corner on the sheet, and size, mm. */
  x: z.number().min(-2000).max(7000),
  y: z.number().min(-2000).max(7000),
  length: z.number().positive().max(1000),
  width: z.number().positive().max(1000),
  /** How far it stands above the stock, mm; null where nobody has measured it. */
  height: z.number().min(0).max(200).nullable(),
});

export type KeepOut = z.infer<typeof KeepOutSchema>;
