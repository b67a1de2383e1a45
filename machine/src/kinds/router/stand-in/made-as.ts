import { z } from 'zod';
import { RouterBenchSchema } from '@kerbe/core/machines/router/bench';
import { LimitsSchema } from '@kerbe/core/document/limits';

/** How a simulated router is built: how far and how fast its axes go, and whether a tool setter is bolted to its table. */
export const MadeAsSchema = z.object({
  travel: RouterBenchSchema.shape.travel,
  /** As a bench says them: mm/min, mm/s². */
  limits: LimitsSchema,
  setter: RouterBenchSchema.shape.setter,
});
export type MadeAs = z.infer<typeof MadeAsSchema>;

/** The router of the Dome workshop, where nobody says otherwise. */
export const DOME: MadeAs = {
  travel: { x: 820, y: 520, z: 130 },
  limits: {
    speed: { x: 6000, y: 6000, z: 2400 },
    acceleration: { x: 400, y: 400, z: 250 },
    cornerStep: 400,
  },
  setter: { x: 790, y: 40, force: 2 },
};
