/** Signs of a name that a mark keeps. */
const KEPT = 70;

/**
 * A name as marks keep it: its first signs, none of them cut in half, and nothing that a document may not hold.
 * @example shortened('a\0b') // 'ab'
 */
export const shortened = (name: string): string => [...name.replace(/[\0\p{Surrogate}]/gu, '')].slice(0, KEPT).join('');
