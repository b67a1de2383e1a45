import { z } from 'zod';
import type { PointingCommand } from '../pointing/commands.ts';
import { BasisSchema, BitSchema } from '../../runner/zero.ts';

/** Commands of a plasma table's bench that a page gives as they are. */
export const PLASMA_FROM_PAGE = [z.object({ command: z.literal('nozzle-in'), bit: BitSchema })] as const;

/** Those that name a job, as a page gives them and as the runner is given them. */
const Job = z.string().max(60);
const NAMES = ['feel-sheet'] as const;
export const PLASMA_OF_JOB = NAMES.map((name) => z.object({ command: z.literal(name), job: Job }));
export const PLASMA_WITH_BASIS = NAMES.map((name) => z.object({ command: z.literal(name), basis: BasisSchema }));

/** Everything that a plasma table's bench may be told besides what every bench may. */
export type PlasmaCommand =
  | PointingCommand
  | z.infer<(typeof PLASMA_FROM_PAGE)[number]>
  | { command: (typeof NAMES)[number]; basis: z.infer<typeof BasisSchema> };
