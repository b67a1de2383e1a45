import { z } from 'zod';
import { text } from '../schema/text.ts';

/** A remark that someone has left as it is on purpose. */
export const LeftRemarkSchema = z.object({
  /** The remark, and a mark of what it was about: where that has changed, the remark stands again. */
  remark: text(300, 1),
  cause: text(40, 1),
  reason: text(150, 1),
  /** Who left it, as that page is called; nothing where it has no name. */
  by: text(40),
  at: z.iso.datetime(),
});

export type LeftRemark = z.infer<typeof LeftRemarkSchema>;
