import { z } from 'zod';
import { text } from '../schema/text.ts';
import { LimitsSchema } from './limits.ts';
import { IdSchema } from './names.ts';

/** What every bench has, whatever machine stands on it. The fields of its kind stand beside these; `machines/<kind>/` says which. */
export const BENCH_BASE = {
  id: IdSchema,
  name: text(80, 1),
  /** What drives it: the simulated machine that ships with Kerbe, or nothing (programs are carried over by hand). */
  link: z.enum(['stand-in', 'file']),
  /** Reach of each axis, mm. */
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  limits: LimitsSchema,
  /** Where the tool is parked at the end of a program, machine coordinates, mm; null where there is no such place. */
  park: z
    .object({ x: z.number().min(0).max(10_000), y: z.number().min(0).max(10_000) })
    .nullable()
    .default(null),
  /** Pins that the stock is laid against: none, put down before a run, or staying up in it. */
  pins: z.enum(['none', 'down', 'stay']).default('none'),
  /** Seconds from the word until power that changes along a move is there: it comes so much later on the way. */
  lag: z.number().min(0).max(0.1).optional(),
  /** Minutes an operator takes to change a tool. */
  bitChangeMinutes: z.number().min(0).max(120),
};

/** A bench as the document knows it. */
export type BaseBench = z.infer<z.ZodObject<typeof BENCH_BASE>> & { kind: string };
