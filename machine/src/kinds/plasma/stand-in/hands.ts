import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';

/** What a person does at the simulated plasma table. The runner knows nothing of it. */
export const HandSchema = z.discriminatedUnion('hand', [
  z.object({ hand: z.literal('emergency'), pressed: z.boolean() }),
  z.object({ hand: z.literal('power') }),
  z.object({
    hand: z.literal('sheet'),
    length: z.number().positive().max(1240),
    width: z.number().positive().max(1240),
    thickness: z.number().positive().max(50),
    /** It lies turned by so much, radians; by chance where nobody says. */
    turn: z.number().min(-0.2).max(0.2).optional(),
    /** What is drawn on it, by which the account of damage knows on which side of a line it was cut; x and y in turn, mm. */
    drawn: z.array(z.array(z.number()).max(20_000)).max(2000).default([]),
  }),
  z.object({
    hand: z.literal('nozzle'),
    id: text(200).optional(),
    name: text(80),
    /** What it leaves at its own feed, and the arc’s voltage at its own height, as its chart says. */
    kerf: z.number().positive().max(20),
    pierceHeight: z.number().positive().max(50),
    cutHeight: z.number().positive().max(50),
    volts: z.number().min(0).max(400),
    /** The feed at which it cuts so wide, mm/min. */
    feed: z.number().positive().max(50_000),
  }),
  /** The work clamp on clean metal. */
  z.object({ hand: z.literal('clamp'), on: z.boolean() }),
  /** Water or downdraught. */
  z.object({ hand: z.literal('fume'), on: z.boolean() }),
  /** The arc goes out, as it does when the air fails. */
  z.object({ hand: z.literal('blow') }),
]);

export type Hand = z.infer<typeof HandSchema>;
