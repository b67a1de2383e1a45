import { z } from 'zod';
import { text } from '../schema/text.ts';
import { LimitsSchema } from './limits.ts';
import { IdSchema } from './names.ts';

/** The ways controllers want their RS-274 text, by name. */
export const DIALECT_NAMES = ['plain', 'operator-spindle', 'lines-only', 'numbered'] as const;

export const BenchSchema = z.object({
  id: IdSchema,
  name: text(80, 1),
  /** What drives it: the simulated router that ships with Kerbe, or nothing (programs are carried over by hand). */
  link: z.enum(['stand-in', 'file']),
  /** Reach of each axis, mm. */
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  limits: LimitsSchema,
  spindle: z.object({ min: z.number().min(0), max: z.number().positive() }),
  /** Touch plate: thickness over the stock, how far its sides stand out from the corner, and its size, mm. */
  plate: z.object({ thickness: z.number().min(0), side: z.number().min(0), size: z.number().positive() }),
  /** Where the tool setter stands, machine coordinates, mm; null where there is none. */
  setter: z.object({ x: z.number(), y: z.number() }).nullable(),
  dialect: z.enum(DIALECT_NAMES),
  /** Where the bit is parked at the end of a program, machine coordinates, mm; null where there is no such place. */
  park: z
    .object({ x: z.number().min(0).max(10_000), y: z.number().min(0).max(10_000) })
    .nullable()
    .default(null),
  /** Seconds after which the machine lifts and stops its spindle by itself when it hears nothing from Kerbe. */
  spindleAfter: z.number().min(0).max(600).default(20),
  /** Minutes an operator takes for a bit change. */
  bitChangeMinutes: z.number().min(0).max(120),
});

export type Bench = z.infer<typeof BenchSchema>;
