import { z } from 'zod';
import { IdSchema } from '../../document/names.ts';
import type { Field } from '../../fields/field.ts';
import { list } from '../../schema/list.ts';

/**
 * Bits that clear before a cut's own, the largest first.
 * @param larger whether they must be larger than the cut's own.
 */
export const clearBits = (larger: boolean): Field<string[]> => ({
  name: 'bit that clears first',
  measure: 'choice',
  schema: list(IdSchema, 5).default([]) as unknown as z.ZodType<string[]>,
  control: { is: 'bits', kinds: ['end'], larger },
  options: [{ name: 'clear-bit', bits: true, read: (text, { now }) => [...now, text] }],
});
