/**
 * What is done to a material before or after it is worked, step by step.
 * @example stepsOf('cover it with film; let it settle ;') // ['cover it with film', 'let it settle']
 */
export const stepsOf = (text: string | undefined): string[] =>
  (text ?? '')
    .split(';')
    .map((step) => step.trim())
    .filter((step) => step.length > 0);
