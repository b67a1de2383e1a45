import { z } from 'zod';
import { type MachineState, MachineStateSchema } from '../../link/machine-state.ts';
import { messageOf } from '../../link/wire.ts';

/** What a laser's controller tells besides what any does. */
export const LaserStateSchema = MachineStateSchema.extend({
  /** The program has made it ready; how much of its power is on now, 0 to 1. */
  ready: z.boolean(),
  beam: z.number(),
  /** The lid's switch; null where it has none. The key at the machine. */
  lid: z.enum(['closed', 'open']).nullable(),
  armed: z.boolean(),
  air: z.boolean(),
});
export type LaserState = z.infer<typeof LaserStateSchema>;

/** Every message that a laser's controller sends: one JSON object a line. */
export const LaserMessageSchema = messageOf(LaserStateSchema);

/** What is told by a machine that is known to be a laser. */
export const laserState = (machine: MachineState | undefined) => machine as LaserState | undefined;
