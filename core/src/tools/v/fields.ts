import { optional } from '../../fields/optional-field.ts';
import { angle, length } from '../../fields/quantity-field.ts';
import type { Bit } from '../turned.ts';
import { TURNED } from '../turned-fields.ts';

export const FIELDS = {
  ...TURNED,
  /** In all; one who does not give it is asked for it. */
  angle: optional(angle('included angle', { min: 5, max: 170 })),
  /** Across the flat at its point. */
  tip: length('tip', { min: 0, max: 50, initial: 0 }),
};

export interface VBit extends Bit {
  angle?: number | null;
  tip: number;
}
