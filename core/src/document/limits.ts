import { z } from 'zod';

const PerAxis = z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() });

/** What a bench's axes can do. */
export const LimitsSchema = z.object({
  /** Fastest speed of each axis, mm/min. */
  speed: PerAxis,
  /** Acceleration of each axis, mm/s². */
  acceleration: PerAxis,
  /** Largest sudden change of speed an axis takes at a corner, mm/min. */
  cornerStep: z.number().positive(),
});

export type Limits = z.infer<typeof LimitsSchema>;
