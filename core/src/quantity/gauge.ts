import { MM_PER_INCH } from './units.ts';

/**
 * Weights of the gauges of the Manufacturers’ Standard Gauge for sheet steel, ounces a square foot: number 3 first. A sheet
 * of 41.82 pounds a square foot is an inch thick (the published table; handbook §14).
 */
const OUNCES = [
  160, 150, 140, 130, 120, 110, 100, 90, 80, 70, 60, 50, 45, 40, 36, 32, 28, 24, 22, 20, 18, 16, 14, 12, 11, 10, 9, 8,
  7, 6.5, 6, 5.5, 5, 4.5, 4.25, 4,
];
const FIRST = 3;
/** The last number of the gauge. */
const LAST = FIRST + OUNCES.length - 1;
const OUNCES_PER_INCH = 16 * 41.82;

/** How near a thickness lies to a gauge's to be called by it, mm. */
const NEAR = 0.02;

/**
 * Thickness of sheet steel by its number in the Manufacturers’ Standard Gauge, mm; nothing for numbers that it has not.
 * @example gaugeThickness(10) // 3.416…
 */
export function gaugeThickness(number: number): number | undefined {
  const ounces = OUNCES[number - FIRST] as number | undefined;
  return ounces === undefined ? undefined : (ounces / OUNCES_PER_INCH) * MM_PER_INCH;
}

/**
 * The gauge that a thickness is, within two hundredths of a millimetre; nothing where it is none.
 * @example gaugeOf(3.42) // 10
 */
export function gaugeOf(thickness: number): number | undefined {
  const off = (number: number) => Math.abs(gaugeThickness(number)! - thickness);
  let best = FIRST;
  for (let number = FIRST; number <= LAST; number++) if (off(number) < off(best)) best = number;
  return off(best) <= NEAR ? best : undefined;
}

/** What a number that the gauge has not is answered with. */
export const GAUGES = `${FIRST} to ${LAST}`;
