import { z } from 'zod';
import { BasisSchema, BitSchema } from '../../runner/zero.ts';
import type { PointingCommand } from '../pointing/commands.ts';

/** Commands of a laser's bench that a page gives as they are. */
export const LASER_FROM_PAGE = [z.object({ command: z.literal('beam-in'), bit: BitSchema })] as const;

/** Those that name a job, as a page gives them and as the runner is given them. */
const focused = z.literal('focused');
export const LASER_OF_JOB = [z.object({ command: focused, job: z.string().max(60) })] as const;
export const LASER_WITH_BASIS = [z.object({ command: focused, basis: BasisSchema })] as const;

/** Everything that a laser's bench may be told besides what every bench may. */
export type LaserCommand =
  PointingCommand | z.infer<(typeof LASER_FROM_PAGE)[number]> | z.infer<(typeof LASER_WITH_BASIS)[number]>;
