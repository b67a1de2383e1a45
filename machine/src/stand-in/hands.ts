import { z } from 'zod';

/** What a person does at the simulated machine, since nobody stands there. */
export const HandSchema = z.discriminatedUnion('hand', [
  z.object({ hand: z.literal('emergency'), pressed: z.boolean() }),
  z.object({
    hand: z.literal('stock'),
    length: z.number().positive().max(800),
    width: z.number().positive().max(500),
    corners: z.tuple([z.number().positive(), z.number().positive(), z.number().positive(), z.number().positive()]),
  }),
  z.object({
    hand: z.literal('bit'),
    name: z.string().max(80),
    diameter: z.number().positive().max(200),
    angle: z.number().positive().max(179).optional(),
    tip: z.number().min(0).max(50),
  }),
  z.object({
    hand: z.literal('plate'),
    place: z.enum(['corner', 'flat', 'spoilboard', 'away']),
    corner: z.enum(['lower-left', 'lower-right', 'upper-right', 'upper-left']).optional(),
  }),
  z.object({ hand: z.literal('clip'), on: z.boolean() }),
  z.object({ hand: z.literal('tap'), on: z.boolean() }),
]);

export type Hand = z.infer<typeof HandSchema>;
