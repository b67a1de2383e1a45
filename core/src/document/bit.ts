import { z } from 'zod';
import { list } from '../schema/list.ts';
import { text } from '../schema/text.ts';

/** Feeds and speeds of one bit in one material: mm/min, turns a minute, mm. */
export const PresetSchema = z.object({
  material: text(60, 1),
  feed: z.number().positive().max(50_000),
  plunge: z.number().positive().max(50_000),
  speed: z.number().min(0).max(100_000),
  depthPerPass: z.number().positive().max(100),
});

export const BitSchema = z.object({
  id: text(60, 1),
  name: text(80, 1),
  kind: z.enum(['v', 'end', 'drill']),
  /** Widest cutting diameter, mm. */
  diameter: z.number().positive().max(200),
  /** Included angle of a V-bit, degrees. */
  angle: z.number().min(5).max(170).optional(),
  /** Diameter of the flat at a V-bit's tip, mm. */
  tip: z.number().min(0).max(50).default(0),
  /** Length of the cutting edges, mm. */
  flute: z.number().positive().max(300),
  shank: z.number().positive().max(60),
  presets: list(PresetSchema, 50),
});

export type Bit = z.infer<typeof BitSchema>;
export type Preset = z.infer<typeof PresetSchema>;
