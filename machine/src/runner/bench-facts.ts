import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';

/** What the runner has to know of any bench; a copy of the job's. Those of a kind stand beside these. */
export const BENCH_FACTS = {
  /** The bench’s own name in its jobs; programs written before benches had one were for the first. */
  id: text(60).default('dome-workshop'),
  name: text(80),
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
};
export type BenchFacts = z.infer<z.ZodObject<typeof BENCH_FACTS>> & { kind: string };
