import { z } from 'zod';
import { type MachineState, MachineStateSchema } from '../../link/machine-state.ts';
import { messageOf } from '../../link/wire.ts';

/** What a router's controller tells besides what any does. */
export const RouterStateSchema = MachineStateSchema.extend({
  /** Turns a minute, and what is set over it, per cent. */
  spindle: z.number(),
  spindleOverride: z.number(),
  /** The touch circuit is closed. */
  touching: z.boolean(),
});
export type RouterState = z.infer<typeof RouterStateSchema>;

/** Every message that a router's controller sends: one JSON object a line. */
export const RouterMessageSchema = messageOf(RouterStateSchema);

/** What is told by a machine that is known to be a router. */
export const routerState = (machine: MachineState | undefined) => machine as RouterState | undefined;
