import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';

/** What a person does at the simulated machine, since nobody stands there. The runner knows nothing of it. */
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
    /** Which bit it is; the same one sticks out nearly as far each time. */
    id: text(200).optional(),
    name: text(80),
    diameter: z.number().positive().max(200),
    angle: z.number().positive().max(179).optional(),
    tip: z.number().min(0).max(50),
    /** Of a point that gives when it is pressed: how far, mm, from which force on, N, and how wide it draws, mm. */
    spring: z
      .object({ travel: z.number().positive(), force: z.number().min(0), width: z.number().positive() })
      .nullish(),
  }),
  /** A slip of paper of a thickness, mm, is held under the tool to feel when it drags; 0 takes it away. */
  z.object({ hand: z.literal('paper'), thickness: z.number().min(0).max(2) }),
  z.object({
    hand: z.literal('plate'),
    place: z.enum(['corner', 'flat', 'spoilboard', 'away']),
    corner: z.enum(['lower-left', 'lower-right', 'upper-right', 'upper-left']).optional(),
  }),
  z.object({ hand: z.literal('clip'), on: z.boolean() }),
  z.object({ hand: z.literal('tap'), on: z.boolean() }),
  /** The spindle's own switch, on machines where the program does not turn it. */
  z.object({ hand: z.literal('spindle'), turns: z.number().min(0).max(60_000) }),
  /** Off and on again: it no longer knows where it is. */
  z.object({ hand: z.literal('power') }),
]);

export type Hand = z.infer<typeof HandSchema>;
