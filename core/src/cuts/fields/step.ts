import { length } from '../../fields/quantity-field.ts';

/** How far a bit goes over from way to way. */
export const STEP = length('step', {
  above: 0,
  max: 100,
  share: true,
  none: 'so the floor would never be finished; give for example 0.5mm or 40%',
});
