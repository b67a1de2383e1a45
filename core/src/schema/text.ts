import { z } from 'zod';

/**
 * Text as every place keeps it: of at most so many characters, and none that no file or database can hold (a NUL, or
 * half a character).
 * @example text(5).safeParse('a\0').success // false
 */
export const text = (most: number, least = 0) =>
  z
    .string()
    .min(least)
    .max(most)
    .regex(/^[^\0\p{Surrogate}]*$/u);
