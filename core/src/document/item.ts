import { z } from 'zod';
import { text } from '../schema/text.ts';
import { IdSchema, PlaceSchema } from './names.ts';

const Hash = z.string().regex(/^[0-9a-f]{64}$/);

export const FACES = ['fraunces', 'josefin', 'rokkitt'] as const;

const Placed = {
  id: IdSchema,
  name: text(120, 1),
  /** Position of the item's own origin on the sheet, mm. */
  x: PlaceSchema,
  y: PlaceSchema,
  /** Turn counter-clockwise, degrees. */
  rotation: z.number().min(-360).max(360),
};

export const DrawingItemSchema = z.object({
  ...Placed,
  kind: z.literal('drawing'),
  /** SHA-256 of the imported file, which is kept as it came. */
  asset: Hash,
  scaleX: z.number().positive().max(1000),
  scaleY: z.number().positive().max(1000),
  /** Join the two ends of outlines that were drawn open. */
  closeOpen: z.boolean(),
  /** Draw closed outlines anew with few smooth curves that stray no further than this, mm; 0 leaves them as drawn. */
  refit: z.number().min(0).max(2).default(0),
});

export const LetteringItemSchema = z.object({
  ...Placed,
  kind: z.literal('lettering'),
  text: text(2000),
  face: z.enum(FACES),
  capHeight: z.number().positive().max(2000),
  tracking: z.number().min(-500).max(5000),
  leading: z.number().positive().max(10),
  align: z.enum(['left', 'centre', 'right']),
});

export const ItemSchema = z.discriminatedUnion('kind', [DrawingItemSchema, LetteringItemSchema]);

export type Face = (typeof FACES)[number];
export type Item = z.infer<typeof ItemSchema>;
export type DrawingItem = z.infer<typeof DrawingItemSchema>;
export type LetteringItem = z.infer<typeof LetteringItemSchema>;
