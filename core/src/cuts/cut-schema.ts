import { z } from 'zod';
import { CUT_BASE } from '../document/cut.ts';
import { fieldsOf, shapeOf } from '../fields/group-field.ts';
import type { FieldSet } from '../fields/field.ts';
import { nameField } from '../schema/sentence-for.ts';
import { CUT_KINDS, type Cut } from './kinds.ts';

const schemas = Object.entries(CUT_KINDS).map(([kind, { fields }]) =>
  z.object({ ...CUT_BASE, kind: z.literal(kind), ...shapeOf(fields) }),
);

/** A cut of any kind: what the document knows of it, and the fields of its kind. */
export const CutSchema = z.discriminatedUnion('kind', schemas as never) as unknown as z.ZodType<Cut>;

/** What is said of a cut’s fields where a document is refused. */
function nameFields(fields: FieldSet): void {
  for (const [key, field] of Object.entries(fields)) {
    nameField(key, field.name.replace(' of cut #', ''), field.measure);
    nameFields(fieldsOf(field) ?? {});
  }
}
for (const { fields } of Object.values(CUT_KINDS)) nameFields(fields);
