import { z } from 'zod';
import type { BenchFacts } from '../runner/bench-facts.ts';
import { LaserFactsSchema } from './laser/facts.ts';
import { PlasmaFactsSchema } from './plasma/facts.ts';
import { RouterFactsSchema } from './router/facts.ts';

/** What the runner is told of a bench, whatever kind of machine stands on it. */
export const BenchFactsSchema: z.ZodType<BenchFacts> = z.union([
  RouterFactsSchema,
  PlasmaFactsSchema,
  LaserFactsSchema,
]);
