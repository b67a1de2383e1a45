import type { BaseTool } from '../../document/tool.ts';
import type { Slot } from '../../fields/slot.ts';
import { formatLength } from '../../quantity/format.ts';
import type { LengthUnit } from '../../quantity/units.ts';

/** A length of a cut as a share of its bit, in percent. */
export const shareOfBit = (
  name: string,
  length: number,
  { diameter }: BaseTool,
  set: (length: number) => Record<string, unknown>,
): Slot => ({
  name: `${name}, share of the bit`,
  control: { is: 'quantity', quantity: 'number', min: 0.2, max: 100, suffix: '%' },
  value: Math.round((1000 * length) / diameter) / 10,
  set: (percent) => set(((percent as number) / 100) * diameter),
});

/** “6 mm across”. */
export const across = ({ diameter }: BaseTool, unit: LengthUnit): string => `${formatLength(diameter, unit, 2)} across`;
