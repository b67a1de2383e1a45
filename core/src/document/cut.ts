import { z } from 'zod';
import { text } from '../schema/text.ts';
import { list } from '../schema/list.ts';
import { IdSchema } from './names.ts';

/**
 * What a cut works on: a whole item, or some of its shapes by marks that last (`artwork/marks.ts`): the id of an element, a
 * letter of a line, a place and a size, or a whole layer.
 */
export const TargetSchema = z.object({
  item: IdSchema,
  shapes: z.union([z.literal('all'), list(text(160, 1), 10_000)]),
});

/**
 * What a person has said of the settings of a cut: which of them were typed, copied from another material, or taken from a
 * row that says otherwise by now, for which material and tool. Without it they are those of a row of the tool, or not known.
 */
export const SettingsSchema = z.object({
  from: z.enum(['row', 'typed', 'copied']),
  material: text(60, 1),
  bit: IdSchema,
  keys: list(text(60, 1), 40),
  /** The material whose row was copied. */
  of: text(60, 1).optional(),
});

/** What every cut has, whatever its kind. */
export const CUT_BASE = {
  id: IdSchema,
  targets: list(TargetSchema, 500),
  bit: IdSchema,
  settings: SettingsSchema.optional(),
};

export type Target = z.infer<typeof TargetSchema>;

/** A cut as the document knows it. The fields of its kind stand beside these; `cuts/<kind>/` says which. */
export interface BaseCut {
  id: string;
  kind: string;
  targets: Target[];
  bit: string;
  settings?: z.infer<typeof SettingsSchema>;
}
