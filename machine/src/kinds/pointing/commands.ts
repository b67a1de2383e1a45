import { z } from 'zod';
import { BasisSchema } from '../../runner/zero.ts';

export const POINTING_FROM_PAGE = [z.object({ command: z.literal('edge-free') })] as const;

/** Those that name a job, as a page gives them and as the runner is given them. */
const NAMES = ['point-zero', 'point-edge'] as const;
export const POINTING_OF_JOB = NAMES.map((name) => z.object({ command: z.literal(name), job: z.string().max(60) }));
export const POINTING_WITH_BASIS = NAMES.map((name) => z.object({ command: z.literal(name), basis: BasisSchema }));

/** Everything that a bench with a pointer may be told about it. */
export type PointingCommand =
  | z.infer<(typeof POINTING_FROM_PAGE)[number]>
  | { command: (typeof NAMES)[number]; basis: z.infer<typeof BasisSchema> };
