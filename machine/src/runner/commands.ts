import { z } from 'zod';
import { HandSchema } from '../stand-in/hands.ts';

const Axis = z.number().min(-1000).max(1000);

export const BitShapeSchema = z.object({
  name: z.string().max(80),
  diameter: z.number().positive(),
  /** Included angle of a V-bit, degrees. */
  angle: z.number().positive().optional(),
  tip: z.number().min(0),
});
export type BitShape = z.infer<typeof BitShapeSchema>;

export const ZeroSchema = z.object({
  command: z.literal('zero'),
  method: z.enum(['corner', 'flat', 'spoilboard']),
  corner: z.enum(['lower-left', 'lower-right', 'upper-right', 'upper-left']),
  plate: z.object({ thickness: z.number().min(0), side: z.number().min(0), size: z.number().positive() }),
  bit: BitShapeSchema,
  /** From the corner to the job's zero across the sheet, mm. */
  toZero: z.object({ x: z.number(), y: z.number() }),
  /** From the surface under the plate up to the job's zero, mm. */
  rise: z.number(),
});
export type Zero = z.infer<typeof ZeroSchema>;

export const RunSchema = z.object({
  command: z.literal('run'),
  id: z.string().regex(/^[A-Za-z0-9-]{1,60}$/),
  job: z.string().max(120),
  jobId: z.string().max(60),
  program: z.string().max(50_000_000),
  hash: z.string().max(80),
  plannedMinutes: z.number().min(0),
  /** Planned minutes from the start until every `lineStep`th line. */
  timeline: z.array(z.number()).max(500_000),
  lineStep: z.number().int().min(1),
  cuts: z.array(
    z.object({ title: z.string().max(300), from: z.number().int(), to: z.number().int(), bit: z.string().max(80) }),
  ),
  travel: z.object({ x: z.number(), y: z.number(), z: z.number() }),
  setter: z.object({ x: z.number(), y: z.number() }).nullable(),
  /** Height over the work between cuts, from the job's zero, mm. */
  lift: z.number(),
});
export type RunOrder = z.infer<typeof RunSchema>;

/** Everything the runner may be told to do. */
export const CommandSchema = z.discriminatedUnion('command', [
  z.object({ command: z.literal('connect'), port: z.number().int().min(1).max(65535) }),
  z.object({ command: z.literal('disconnect') }),
  z.object({ command: z.literal('home') }),
  z.object({
    command: z.literal('jog'),
    x: Axis.default(0),
    y: Axis.default(0),
    z: Axis.default(0),
    feed: z.number().positive().max(10_000),
  }),
  ZeroSchema,
  z.object({ command: z.literal('nudge-zero'), z: z.number().min(-2).max(2) }),
  z.object({ command: z.literal('go-to-zero'), lift: z.number().positive().max(100) }),
  RunSchema,
  z.object({ command: z.literal('hold') }),
  z.object({ command: z.literal('resume') }),
  z.object({ command: z.literal('stop') }),
  z.object({ command: z.literal('bit-is-in') }),
  z.object({ command: z.literal('feed'), percent: z.number().int().min(10).max(200) }),
  z.object({ command: z.literal('spindle'), percent: z.number().int().min(50).max(150) }),
  z.object({ command: z.literal('clear') }),
  z.object({ command: z.literal('hand'), hand: HandSchema }),
]);
export type Command = z.infer<typeof CommandSchema>;
