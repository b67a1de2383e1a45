import { z } from 'zod';

/**
 * A list of at most so many elements. Its length is looked at before any of them, so that a list of millions costs one
 * look and says one thing.
 * @example list(z.number(), 2).safeParse(['a', 'b', 'c']).error.issues.length // 1
 */
export const list = <T extends z.ZodType>(element: T, most: number) =>
  z.preprocess((value, context) => {
    if (Array.isArray(value) && value.length > most)
      context.addIssue({ code: 'too_big', maximum: most, inclusive: true, origin: 'array', input: value });
    return value;
  }, z.array(element).max(most));
