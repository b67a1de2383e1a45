import { z } from 'zod';
import { type RouterBench, routerOf } from '@kerbe/core/machines/router/bench';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BENCH_FACTS, type BenchFacts } from '../../runner/bench-facts.ts';

const Size = z.number().min(0).max(10_000);

/** What the runner has to know of a router's bench. */
export const RouterFactsSchema = z.object({
  ...BENCH_FACTS,
  /** Orders written before there were several kinds are a router’s. */
  kind: z.literal('router').default('router'),
  setter: z.object({ x: z.number(), y: z.number(), force: z.number().nullable().default(null) }).nullable(),
  /** Where the corner stop has the lower left corner of the stock, machine coordinates, mm. */
  stop: z.object({ x: z.number(), y: z.number() }).nullable().default(null),
  /** Accessories that its list asks for; programs written before benches told of them ask for none but the dust boot. */
  pins: z.enum(['none', 'down', 'stay']).default('none'),
  warmUp: z.number().min(0).max(60).default(0),
  dustBoot: z.boolean().default(true),
  plate: z.object({ thickness: Size, side: Size, size: Size }),
  /** Seconds after which the machine stops its spindle by itself when it hears nothing. */
  spindleAfter: z.number().min(0).max(600),
});
export type RouterFacts = z.infer<typeof RouterFactsSchema>;

/** The facts of a bench that is known to be a router's. */
export const routerFacts = (facts: BenchFacts) => facts as RouterFacts;

/** As a job has its bench. */
export function routerFactsOf(bench: BaseBench): RouterFacts {
  const { id, name, travel, setter, stop, plate, spindleAfter, pins, warmUp, dustBoot }: RouterBench = routerOf(bench);
  return { id, name, kind: 'router', travel, setter, stop, plate, spindleAfter, pins, warmUp, dustBoot };
}
