import { z } from 'zod';
import type { Wire, WireMessage } from './wire.ts';

export const MACHINE_WORDS = [
  'emergency',
  'alarm',
  'unhomed',
  'idle',
  'moving',
  'jogging',
  'homing',
  'probing',
  'slowing',
  'held',
  'waiting',
] as const;
export type MachineWord = (typeof MACHINE_WORDS)[number];

const PointSchema = z.object({ x: z.number(), y: z.number(), z: z.number() });

/** What any controller tells of itself several times a second; those of a kind tell more. Coordinates in mm. */
export const MachineStateSchema = z.object({
  word: z.enum(MACHINE_WORDS),
  alarm: z.string().optional(),
  /** In machine and in work coordinates. */
  machine: PointSchema,
  work: PointSchema,
  /** The line being moved along, and the last one finished; counted from the link's first. */
  line: z.number(),
  done: z.number(),
  homed: z.boolean(),
  /** Of the feed, per cent. */
  override: z.number(),
  /** Seconds on the machine's own clock. */
  clock: z.number(),
  /** Why it is held: it was asked to, it heard nothing for two seconds, or it has stopped in order, for a reason of its own. */
  held: z.enum(['asked', 'unheard', 'itself']).optional(),
  /** Left alone, it has given up what it was doing: held, it cannot be gone on with. */
  gaveUp: z.boolean().optional(),
  /** That reason, a sentence. */
  why: z.string().optional(),
});
export type MachineState = z.infer<typeof MachineStateSchema>;
export type MachineWire = Wire<MachineState>;
export type MachineMessage = WireMessage<MachineState>;
