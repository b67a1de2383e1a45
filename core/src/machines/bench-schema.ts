import { z } from 'zod';
import type { BaseBench } from '../document/bench.ts';
import { MACHINE_KINDS } from './kinds.ts';

/** A bench with a machine of any kind. One that says no kind is a router’s: there were no others. */
export const BenchSchema = z.preprocess(
  (bench) => (typeof bench === 'object' && bench !== null && !('kind' in bench) ? { ...bench, kind: 'router' } : bench),
  z.discriminatedUnion('kind', Object.values(MACHINE_KINDS).map(({ schema }) => schema) as never),
) as unknown as z.ZodType<BaseBench>;
