import { formatLength, lengthNumber } from '../../quantity/format.ts';
import type { LengthUnit } from '../../quantity/units.ts';

/**
 * What a pair's allowance is, in words.
 * @example fitWords(-0.05, 'mm') // 'a press of 0.05 mm a side'
 */
export function fitWords(allowance: number, unit: LengthUnit): string {
  return allowance === 0
    ? 'neither gap nor press'
    : `a ${kindOf(allowance)} of ${formatLength(Math.abs(allowance), unit, 3)} a side`;
}

/**
 * The fit that was measured along a pair, in words.
 * @example measuredFit({ least: 0.059, most: 0.061 }, 'mm') // 'gap 0.059 to 0.061 mm a side'
 */
export function measuredFit(measured: { least: number; most: number }, unit: LengthUnit): string {
  const [least, most] = [measured.least, measured.most].map((mm) => lengthNumber(Math.abs(mm), unit, 3));
  const [of, to] = [kindOf(measured.least), kindOf(measured.most)];
  if (least === most && (of === to || least === '0')) return `${to} ${most} ${unit} a side`;
  if (of !== to) return `${of} ${least} to ${to} ${most} ${unit} a side`;
  const figures = of === 'gap' ? [least, most] : [most, least];
  return `${of} ${figures.join(' to ')} ${unit} a side`;
}

function kindOf(allowance: number): string {
  return allowance < 0 ? 'press' : 'gap';
}
