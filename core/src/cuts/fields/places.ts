import { group } from '../../fields/group-field.ts';
import { length } from '../../fields/quantity-field.ts';

const along = (name: string) => length(name, { min: -10_000, max: 10_000, option: false });

/** A place on the sheet, mm. */
export const PLACE = group('the place', { x: along('place from the left'), y: along('place from below') });
