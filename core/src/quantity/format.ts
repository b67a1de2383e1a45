import { areaUnit, decimalsIn, feedDigits, type LengthUnit, mmPer } from './units.ts';

function trimmed(value: number, decimals: number): string {
  const text = value
    .toFixed(decimals)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '');
  return text === '-0' ? '0' : text;
}

/**
 * A length for a number field, without its unit: `lengthNumber(9.525, 'in')` is `'0.375'`.
 * @param decimals digits in millimetres at most; inches have more.
 */
export function lengthNumber(mm: number, unit: LengthUnit, decimals = 3): string {
  return trimmed(mm / mmPer(unit), decimalsIn(decimals, unit));
}

/** A length for reading: `formatLength(6.5, 'mm')` is `'6.5 mm'`. */
export function formatLength(mm: number, unit: LengthUnit, decimals = 1): string {
  return `${lengthNumber(mm, unit, decimals)} ${unit}`;
}

/**
 * An area for reading: `formatArea(1081, 'mm')` is `'10.81 cm²'`.
 * @param decimals digits of square centimetres at most; square inches have one more.
 */
export function formatArea(mm2: number, unit: LengthUnit, decimals = 2): string {
  const { name, mm2: one, more } = areaUnit(unit);
  return `${trimmed(mm2 / one, decimals + more)} ${name}`;
}

/** A feed for reading: `formatFeed(1524, 'in')` is `'60 in/min'`. */
export function formatFeed(mmPerMinute: number, unit: LengthUnit): string {
  return `${trimmed(mmPerMinute / mmPer(unit), feedDigits(unit))} ${unit}/min`;
}

/** A duration for reading: `formatMinutes(18.0833)` is `'18 min 05 s'`; hours appear from 60 min. */
export function formatMinutes(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  const two = (n: number) => String(n).padStart(2, '0');
  if (seconds < 60) return `${seconds} s`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ${two(seconds % 60)} s`;
  return `${Math.floor(seconds / 3600)} h ${two(Math.floor(seconds / 60) % 60)} min`;
}

/** A share in per cent, to a tenth. @example formatShare(0.8) // '80 %' */
export const formatShare = (share: number): string => `${Number((100 * share).toFixed(1))} %`;
