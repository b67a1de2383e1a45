import type { z } from 'zod';
import { list } from '../schema/list.ts';
import type { Field } from './field.ts';

/**
 * At most so many values of a field: places on the sheet. It is empty in documents that have none.
 * @example listOf('places', PLACE, 100).schema.parse(undefined) // []
 */
export const listOf = <T>(name: string, element: Field<T>, most: number): Field<T[]> => ({
  name,
  measure: 'count',
  schema: list(element.schema, most).default([]) as unknown as z.ZodType<T[]>,
  control: { is: 'inside' },
  options: [],
});
