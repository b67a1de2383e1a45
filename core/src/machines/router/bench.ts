import { z } from 'zod';
import { BENCH_BASE, type BaseBench } from '../../document/bench.ts';
import { BY_OPERATOR, byProgram } from './post.ts';
import { type DialectName, DIALECTS, type RouterDialect } from './dialects.ts';

/** A router's bench: what every bench has, and its spindle, touch plate, tool setter and dialect. */
export const RouterBenchSchema = z.object({
  ...BENCH_BASE,
  kind: z.literal('router'),
  spindle: z.object({ min: z.number().min(0), max: z.number().positive() }),
  /** Touch plate: thickness over the stock, how far its sides stand out from the corner, and its size, mm. */
  plate: z.object({ thickness: z.number().min(0), side: z.number().min(0), size: z.number().positive() }),
  /** Where the tool setter stands, machine coordinates, mm; null where there is none. */
  setter: z
    .object({
      x: z.number(),
      y: z.number(),
      /** What it takes to move it, N; null where nobody has measured that. */
      force: z.number().min(0).max(200).nullable().default(null),
    })
    .nullable(),
  /** Where a corner stop has the lower left corner of the stock, machine coordinates, mm; null where there is none. */
  stop: z.object({ x: z.number(), y: z.number() }).nullable().default(null),
  /** Minutes its spindle is to be warmed up; 0 where it needs none. */
  warmUp: z.number().min(0).max(60).default(0),
  /** It has a dust boot, to be put on. */
  dustBoot: z.boolean().default(true),
  /** Seconds the spindle takes to its speed: large ones take 5 to 15 (common practice; the drive’s manual says). */
  spindleStart: z.number().min(0).max(60).default(3),
  dialect: z.enum(Object.keys(DIALECTS) as [DialectName, ...DialectName[]]),
  /** Seconds after which the machine lifts and stops its spindle by itself when it hears nothing from Kerbe. */
  spindleAfter: z.number().min(0).max(600).default(20),
});

export type RouterBench = z.infer<typeof RouterBenchSchema>;

/** A bench as a router’s, for what is a router’s own. @throws {Error} where it is another, which is a fault of ours. */
export function routerOf(bench: BaseBench): RouterBench {
  if (bench.kind !== 'router') throw new Error(`“${bench.name}” is no router.`);
  return bench as RouterBench;
}

/** How its programs are written: its dialect, with what its own spindle takes to start. */
export function dialectOf({ dialect, spindleStart }: RouterBench): RouterDialect {
  const own = DIALECTS[dialect];
  return { ...own, post: own.spindle === 'program' ? byProgram(spindleStart) : BY_OPERATOR };
}
