import { POINT_SIZE } from '../../artwork/round-places.ts';
import { formatLength } from '../../quantity/format.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import type { DrillFacts } from './facts.ts';

/** A drill makes holes of its own size; circles drawn larger or smaller by this, mm, may have been meant as they are drawn. */
export const SIZE_WORTH_SAYING = 0.1;

/** How wide the circles are drawn that are not as wide as the bit, mm, each list from the smallest. */
export function drawnSizes(
  facts: DrillFacts | null | undefined,
  { diameter: own }: { diameter: number },
): { larger: number[]; smaller: number[] } {
  const drawn = (facts?.holes ?? []).flatMap(({ diameter }) => diameter ?? []).sort((a, b) => a - b);
  return {
    larger: drawn.filter((diameter) => diameter > own + SIZE_WORTH_SAYING),
    smaller: drawn.filter((diameter) => diameter >= POINT_SIZE && diameter < own - SIZE_WORTH_SAYING),
  };
}

/**
 * What is said of circles that a bit does not make as they are drawn.
 * @param sizes from the smallest, mm.
 * @example drawnWords([5, 5, 5.2], { name: 'Drill 4', diameter: 4 }, 'mm') // '3 circles are drawn 5 mm to 5.2 mm wide, and Drill 4 makes holes of 4 mm.'
 */
export function drawnWords(
  sizes: readonly number[],
  bit: { name: string; diameter: number },
  unit: LengthUnit,
): string {
  const wide = [...new Set([sizes[0], sizes[sizes.length - 1]].map((d) => formatLength(d, unit, 2)))].join(' to ');
  const circles = sizes.length === 1 ? 'One circle is' : `${sizes.length} circles are`;
  return `${circles} drawn ${wide} wide, and ${bit.name} makes holes of ${formatLength(bit.diameter, unit, 2)}.`;
}
