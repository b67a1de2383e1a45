import { z } from 'zod';
import { type MachineState, MachineStateSchema } from '../../link/machine-state.ts';
import { messageOf } from '../../link/wire.ts';

/** What a plasma table's controller tells besides what any does. */
export const PlasmaStateSchema = MachineStateSchema.extend({
  arc: z.enum(['off', 'igniting', 'on']),
  /** Of the arc; 0 where there is none. */
  volts: z.number(),
  /** The height is not followed. */
  level: z.boolean(),
  /** On the nozzle that is in: how often it has pierced, and how far it has cut, m. */
  pierces: z.number(),
  metres: z.number(),
  /** An arc went out in a cut since it was last told to stop: what was being done cannot be gone on with. */
  cutShort: z.boolean(),
  /** Where, machine coordinates, mm. */
  lost: z.object({ x: z.number(), y: z.number() }).nullable(),
});
export type PlasmaState = z.infer<typeof PlasmaStateSchema>;

/** Every message that a plasma table's controller sends: one JSON object a line. */
export const PlasmaMessageSchema = messageOf(PlasmaStateSchema);

/** What is told by a machine that is known to be a plasma table. */
export const plasmaState = (machine: MachineState | undefined) => machine as PlasmaState | undefined;
