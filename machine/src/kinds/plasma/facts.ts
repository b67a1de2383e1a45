import { z } from 'zod';
import { PlasmaBenchSchema, plasmaOf } from '@kerbe/core/machines/plasma/bench';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BENCH_FACTS, type BenchFacts } from '../../runner/bench-facts.ts';

const { touch, transfer, kerfBy, words, pointer } = PlasmaBenchSchema.shape;

/** What the runner has to know of a plasma table's bench. */
export const PlasmaFactsSchema = z.object({
  ...BENCH_FACTS,
  kind: z.literal('plasma'),
  touch,
  transfer,
  kerfBy,
  words,
  pointer,
});
export type PlasmaFacts = z.infer<typeof PlasmaFactsSchema>;

/** The facts of a bench that is known to be a plasma table's. */
export const plasmaFacts = (facts: BenchFacts) => facts as PlasmaFacts;

/** As a job has its bench. */
export function plasmaFactsOf(bench: BaseBench): PlasmaFacts {
  const { id, name, travel, touch, transfer, kerfBy, words, pointer } = plasmaOf(bench);
  return { id, name, kind: 'plasma', travel, touch, transfer, kerfBy, words, pointer };
}
