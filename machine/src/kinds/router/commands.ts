import { z } from 'zod';
import { BasisSchema, BitSchema, CORNERS, HAND_HEIGHTS, HAND_PLACES, METHODS } from '../../runner/zero.ts';

const how = { method: z.enum(METHODS), corner: z.enum(CORNERS) };

/** How zero was found by hand, and how far the tip stands over the surface then, mm. */
const byHand = { method: z.enum([...HAND_HEIGHTS, ...HAND_PLACES]), over: z.number().min(0).max(200) };

/** Commands of a router's bench that a page gives as they are. */
export const ROUTER_FROM_PAGE = [
  z.object({ command: z.literal('bit-changed') }),
  z.object({ command: z.literal('bit-is-right') }),
  z.object({ command: z.literal('measure') }),
  z.object({ command: z.literal('nudge-zero'), z: z.number().min(-2).max(2) }),
  z.object({ command: z.literal('bit-in'), bit: BitSchema }),
  z.object({ command: z.literal('spindle'), percent: z.number().int().min(50).max(150) }),
] as const;

/** Those that name a job, as a page gives them and as the runner is given them. */
const Job = z.string().max(60);
export const ROUTER_OF_JOB = [
  z.object({ command: z.literal('zero'), job: Job, ...how }),
  z.object({ command: z.literal('zero-here'), job: Job, ...byHand }),
] as const;
export const ROUTER_WITH_BASIS = [
  z.object({ command: z.literal('zero'), basis: BasisSchema, ...how }),
  z.object({ command: z.literal('zero-here'), basis: BasisSchema, ...byHand }),
] as const;

/** Everything that only a router's bench may be told. */
export type RouterCommand = z.infer<(typeof ROUTER_FROM_PAGE)[number] | (typeof ROUTER_WITH_BASIS)[number]>;
