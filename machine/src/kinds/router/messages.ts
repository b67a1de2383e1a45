import { z } from 'zod';
import { messageOf } from '../../link/wire.ts';

export const ROUTER_WORDS = [
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
export type RouterWord = (typeof ROUTER_WORDS)[number];

const PointSchema = z.object({ x: z.number(), y: z.number(), z: z.number() });

/** What a controller tells of itself several times a second. Coordinates in mm. */
export const RouterStateSchema = z.object({
  word: z.enum(ROUTER_WORDS),
  alarm: z.string().optional(),
  /** In machine and in work coordinates. */
  machine: PointSchema,
  work: PointSchema,
  /** The line being moved along, and the last one finished; counted from the link's first. */
  line: z.number(),
  done: z.number(),
  homed: z.boolean(),
  spindle: z.number(),
  override: z.number(),
  spindleOverride: z.number(),
  /** The touch circuit is closed. */
  touching: z.boolean(),
  /** Seconds on the machine's own clock. */
  clock: z.number(),
  /** Why it is held: it was asked to, or it heard nothing for two seconds. */
  held: z.enum(['asked', 'unheard']).optional(),
});
export type RouterState = z.infer<typeof RouterStateSchema>;

/** Every message that a router's controller sends: one JSON object a line. */
export const RouterMessageSchema = messageOf(RouterStateSchema);
export type RouterMessage = z.infer<typeof RouterMessageSchema>;
