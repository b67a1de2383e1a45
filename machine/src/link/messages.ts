import { z } from 'zod';

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
});
export type RouterState = z.infer<typeof RouterStateSchema>;

/** Every message a controller sends: one JSON object a line. */
export const RouterMessageSchema = z.object({
  hello: z.string().optional(),
  state: RouterStateSchema.optional(),
  /** Answer to `:echo N`, sent together with a fresh state. */
  echo: z.number().optional(),
  done: z.number().optional(),
  refused: z.number().optional(),
  why: z.string().optional(),
  probe: PointSchema.nullable().optional(),
  alarm: z.string().optional(),
  error: z.string().optional(),
  look: z.record(z.string(), z.unknown()).optional(),
  piece: z.record(z.string(), z.unknown()).optional(),
});
export type RouterMessage = z.infer<typeof RouterMessageSchema>;
