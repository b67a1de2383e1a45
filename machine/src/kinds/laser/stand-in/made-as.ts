import { z } from 'zod';
import { BENCH_BASE } from '@kerbe/core/document/bench';
import { LaserBenchSchema } from '@kerbe/core/machines/laser/bench';

const { watts, full, follows, lid } = LaserBenchSchema.shape;

/** How a simulated laser is built: how far and how fast its axes go, what its beam can do, and how late it comes. */
export const MadeAsSchema = z.object({
  travel: BENCH_BASE.travel,
  limits: BENCH_BASE.limits,
  watts,
  full,
  follows,
  lid,
  lag: z.number().min(0).max(0.1),
});
export type MadeAs = z.infer<typeof MadeAsSchema>;

/** The laser of the Lantern room, where nobody says otherwise. */
export const LANTERN: MadeAs = {
  travel: { x: 600, y: 400, z: 60 },
  limits: {
    speed: { x: 18000, y: 15000, z: 600 },
    acceleration: { x: 2500, y: 2000, z: 100 },
    cornerStep: 600,
  },
  watts: 20,
  full: 1000,
  follows: true,
  lid: true,
  lag: 0.0008,
};
