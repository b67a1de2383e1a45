import { z } from 'zod';
import { BENCH_BASE } from '@kerbe/core/document/bench';
import { PlasmaBenchSchema } from '@kerbe/core/machines/plasma/bench';

/** How a simulated plasma table is built: how far and how fast its axes go, how it feels the sheet, how long its arc takes. */
export const MadeAsSchema = z.object({
  travel: BENCH_BASE.travel,
  limits: BENCH_BASE.limits,
  touch: PlasmaBenchSchema.shape.touch,
  transfer: PlasmaBenchSchema.shape.transfer,
});
export type MadeAs = z.infer<typeof MadeAsSchema>;

/** The table of the Iron yard, where nobody says otherwise. */
export const YARD: MadeAs = {
  travel: { x: 1250, y: 1250, z: 160 },
  limits: {
    speed: { x: 15000, y: 15000, z: 5000 },
    acceleration: { x: 1200, y: 1200, z: 900 },
    cornerStep: 600,
  },
  touch: { by: 'head', offset: 1.2, search: 20 },
  transfer: 0.3,
};
