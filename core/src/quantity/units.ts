/** The inch is 25.4 mm exactly (international yard and pound agreement, 1959). */
export const MM_PER_INCH = 25.4;

export type LengthUnit = 'mm' | 'in';

/** Degrees from radians. `degrees(Math.PI)` is 180. */
export function degrees(radians: number): number {
  return (radians * 180) / Math.PI;
}

/** Radians from degrees. `radians(180)` is π. */
export function radians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}

/** What differs between the units that lengths are shown and typed in; nothing else asks which one it is. */
const UNITS = {
  mm: {
    mm: 1,
    digits: (decimals: number) => decimals,
    arrow: (mm: number) => mm,
    feedDigits: 0,
    modal: 'G21',
    // What areas are told in: square centimetres have few enough digits.
    area: { name: 'cm²', mm2: 100, more: 0 },
  },
  // Inches have two digits more than millimetres where few are shown, and one more where many are.
  in: {
    mm: MM_PER_INCH,
    digits: (decimals: number) => (decimals < 2 ? decimals + 2 : decimals + 1),
    arrow: (mm: number) => Math.max(0.001, Number((mm / 20).toPrecision(1))),
    feedDigits: 1,
    modal: 'G20',
    area: { name: 'in²', mm2: MM_PER_INCH ** 2, more: 1 },
  },
} as const satisfies Record<LengthUnit, object>;

/** One of a unit, mm. @example mmPer('in') // 25.4 */
export const mmPer = (unit: LengthUnit): number => UNITS[unit].mm;

/** How many digits a length shows that shows so many in millimetres. @example decimalsIn(2, 'in') // 3 */
export const decimalsIn = (decimals: number, unit: LengthUnit): number => UNITS[unit].digits(decimals);

/** How many digits a feed shows. @example feedDigits('in') // 1 */
export const feedDigits = (unit: LengthUnit): number => UNITS[unit].feedDigits;

/** What an arrow key adds in a unit that adds so much in millimetres. @example arrowIn(1, 'in') // 0.05 */
export const arrowIn = (mm: number, unit: LengthUnit): number => UNITS[unit].arrow(mm);

/**
 * What areas are told in, how many mm² that is, and how many digits more it shows than square centimetres.
 * @example areaUnit('mm') // { name: 'cm²', mm2: 100, more: 0 }
 */
export const areaUnit = (unit: LengthUnit): { name: string; mm2: number; more: number } => UNITS[unit].area;

/** The word that sets a program to a unit (NISTIR 6556, §3.5.7). @example unitWord('in') // 'G20' */
export const unitWord = (unit: LengthUnit): string => UNITS[unit].modal;
