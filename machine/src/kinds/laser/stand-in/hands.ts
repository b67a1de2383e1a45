import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';

/** What a person does at the simulated laser. The runner knows nothing of it. */
export const HandSchema = z.discriminatedUnion('hand', [
  z.object({ hand: z.literal('emergency'), pressed: z.boolean() }),
  z.object({ hand: z.literal('power') }),
  z.object({
    hand: z.literal('lay'),
    material: text(60, 1),
    length: z.number().positive().max(600),
    width: z.number().positive().max(400),
    thickness: z.number().positive().max(50),
    /** It lies turned by so much, radians; by chance where nobody says. */
    turn: z.number().min(-0.2).max(0.2).optional(),
  }),
  z.object({ hand: z.literal('beam'), id: text(200).optional(), name: text(80), spot: z.number().positive().max(10) }),
  /** The lens at its distance over the stock, by the gauge. */
  z.object({ hand: z.literal('focus') }),
  z.object({ hand: z.literal('lid'), open: z.boolean() }),
  /** The key at the machine. */
  z.object({ hand: z.literal('key'), on: z.boolean() }),
  z.object({ hand: z.literal('exhaust'), on: z.boolean() }),
]);

export type Hand = z.infer<typeof HandSchema>;
