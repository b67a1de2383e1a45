import type { Field } from './field.ts';

/**
 * A field that may be null: not set. What setting it means, a sentence has to say.
 * @example optional(length('depth per pass', { above: 0, max: 100 })).schema.parse(undefined) // null
 */
export const optional = <T>(field: Field<T>): Field<T | null> => ({
  ...field,
  schema: field.schema.nullable().default(null as never) as unknown as Field<T | null>['schema'],
  options: field.options.map((option) => ({
    ...option,
    read: (text, given) => option.read(text, given as never),
  })),
});
