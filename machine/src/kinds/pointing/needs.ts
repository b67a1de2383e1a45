import type { Need } from '../bench-kind.ts';

/** A place was pointed at as zero, and it holds. */
export const cornerPointed: Need = {
  id: 'corner-pointed',
  missing: ({ zero }) => (!zero?.xy ? 'no-zero' : zero.xy.void ? 'zero-void' : undefined),
};
