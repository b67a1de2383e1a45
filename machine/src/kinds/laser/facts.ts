import { z } from 'zod';
import type { BaseBench } from '@kerbe/core/document/bench';
import { LaserBenchSchema, laserOf, spotOf } from '@kerbe/core/machines/laser/bench';
import { BENCH_FACTS, type BenchFacts } from '../../runner/bench-facts.ts';

const { lid, smoke, source } = LaserBenchSchema.shape;

/** What the runner has to know of a laser's bench. */
export const LaserFactsSchema = z.object({
  ...BENCH_FACTS,
  kind: z.literal('laser'),
  /** Where the pointer's spot lies from the beam, mm; null where there is none. */
  spot: z.object({ x: z.number(), y: z.number() }).nullable(),
  lid,
  smoke,
  source,
});
export type LaserFacts = z.infer<typeof LaserFactsSchema>;

/** The facts of a bench that is known to be a laser's. */
export const laserFacts = (facts: BenchFacts) => facts as LaserFacts;

/** As a job has its bench. */
export function laserFactsOf(bench: BaseBench): LaserFacts {
  const laser = laserOf(bench);
  const { id, name, travel, lid, smoke, source } = laser;
  return { id, name, kind: 'laser', travel, spot: spotOf(laser) ?? null, lid, smoke, source };
}
