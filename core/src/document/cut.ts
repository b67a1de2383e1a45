import { z } from 'zod';
import { list } from '../schema/list.ts';
import { IdSchema } from './names.ts';

/** What a cut works on: a whole item, or some of its shapes by number. */
export const TargetSchema = z.object({
  item: IdSchema,
  shapes: z.union([z.literal('all'), list(z.number().int().min(0), 10_000)]),
});

/** What every cut has, whatever its kind. */
export const CUT_BASE = {
  id: IdSchema,
  targets: list(TargetSchema, 500),
  bit: IdSchema,
};

export type Target = z.infer<typeof TargetSchema>;

/** A cut as the document knows it. The fields of its kind stand beside these; `cuts/<kind>/` says which. */
export interface BaseCut {
  id: string;
  kind: string;
  targets: Target[];
  bit: string;
}
