import { z } from 'zod';
import { BasisSchema, BitSchema } from '../../runner/zero.ts';

/** Commands of a plasma table's bench that a page gives as they are. */
export const PLASMA_FROM_PAGE = [
  z.object({ command: z.literal('nozzle-in'), bit: BitSchema }),
  z.object({ command: z.literal('edge-free') }),
] as const;

/** Those that name a job, as a page gives them and as the runner is given them. */
const Job = z.string().max(60);
const NAMES = ['point-zero', 'point-edge', 'feel-sheet'] as const;
export const PLASMA_OF_JOB = NAMES.map((name) => z.object({ command: z.literal(name), job: Job }));
export const PLASMA_WITH_BASIS = NAMES.map((name) => z.object({ command: z.literal(name), basis: BasisSchema }));

/** Everything that only a plasma table's bench may be told. */
export type PlasmaCommand =
  z.infer<(typeof PLASMA_FROM_PAGE)[number]> | { command: (typeof NAMES)[number]; basis: z.infer<typeof BasisSchema> };
