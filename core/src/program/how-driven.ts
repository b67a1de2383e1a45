import { formatFeed, formatLength, formatShare } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';

/** How far down a tool goes: into the stock, or pressed on it where it takes nothing away. */
export interface HowFar {
  depth: number;
  pressed: number;
  /** Of a beam, which burns as deep as that goes: how much of it it cuts with at most, 0 to 1. */
  power?: number;
}

/** How a tool is driven. */
export interface HowDriven extends HowFar {
  feed: number;
  plunge: number;
  speed: number;
  turns: boolean;
}

/** A figure and its word; of a beam its power. @example howFar({ depth: 0, pressed: 2.5 }, 'mm') // ['2.5 mm', 'pressed'] */
export const howFar = (
  { depth, pressed, power }: HowFar,
  unit: LengthUnit,
  decimals = 2,
): [figure: string, word: string] =>
  power !== undefined
    ? [formatShare(power), 'power']
    : pressed > 0
      ? [formatLength(pressed, unit, decimals), 'pressed']
      : [formatLength(depth, unit, decimals), 'deep'];

/**
 * How deep and how fast, as a heading and the log say it.
 * @example howDriven({ depth: 0, pressed: 2, feed: 900, plunge: 2400, speed: 0, turns: false }, 'mm')
 *   // ['2 mm pressed', 'feed 900 mm/min', 'spindle off']
 */
export function howDriven(how: HowDriven, unit: LengthUnit, decimals = 3): string[] {
  const { feed, plunge, speed, turns } = how;
  const first = [howFar(how, unit, decimals).join(' '), `feed ${formatFeed(feed, unit)}`];
  if (!turns) return [...first, 'spindle off'];
  // An arc burns, and has no speed; a beam is not plunged either.
  return [
    ...first,
    ...(plunge > 0 ? [`plunge ${formatFeed(plunge, unit)}`] : []),
    ...(speed > 0 ? [`${speed} rpm`] : []),
  ];
}
