import { z } from 'zod';
import type { AnyField, Field, FieldOption, FieldSet, Values } from './field.ts';

/** A field that holds fields. */
export type GroupField<F extends FieldSet> = Field<Values<F>> & { fields: F };

/**
 * Fields that belong together, kept as one object: how a bit goes in, tabs.
 * @example group('the tabs', { count: count('number of tabs', 'tabs', { min: 0, max: 9 }) }).fields.count.name
 *   // 'number of tabs'
 */
export function group<F extends FieldSet>(
  name: string,
  fields: F,
  { initial, options = [] }: { initial?: Values<F>; options?: readonly FieldOption<Values<F>>[] } = {},
): GroupField<F> {
  const schema = z.object(shapeOf(fields)) as unknown as z.ZodType<Values<F>>;
  return {
    name,
    measure: 'choice',
    fields,
    schema: initial === undefined ? schema : (schema.default(initial as never) as unknown as z.ZodType<Values<F>>),
    control: { is: 'inside' },
    options,
  };
}

export const fieldsOf = (field: AnyField): FieldSet | undefined => (field as Partial<GroupField<FieldSet>>).fields;

/** The schemas of some fields, by their names. */
export function shapeOf<F extends FieldSet>(fields: F): { [K in keyof F]: F[K]['schema'] } {
  return Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, field.schema])) as never;
}
