import type { Values } from '../../fields/field.ts';
import { choice } from '../../fields/choice-field.ts';
import { angle, density, milliseconds } from '../../fields/quantity-field.ts';

/** How an area is gone over by lines. */
export const SCANNING = {
  /** How many lie in a millimetre. */
  lines: density('lines', {
    above: 0,
    max: 100,
    initial: 10,
    none: 'so nothing would be burnt; give how many lines lie in a millimetre, for example 10',
  }),
  angle: angle('angle', { min: -180, max: 180, initial: 0 }),
  /** Sooner than the bench’s beam wants it for how late it comes: for strips that find that. */
  earlier: milliseconds('told earlier', { min: -20, max: 20, initial: 0, option: 'earlier' }),
  ways: choice('ways', { both: 'to and fro', one: 'one way' }, { initial: 'both' }),
};

/** How an area is gone over by lines, as a cut has it. */
export type Scans = Values<typeof SCANNING>;
