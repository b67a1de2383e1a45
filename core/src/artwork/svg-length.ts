import { MM_PER_INCH } from '../quantity/units.ts';
import { ArtworkError } from './artwork-error.ts';

/** What a length may be a share or a multiple of. */
export interface LengthBase {
  /** What 100 % is, in units of the drawing. */
  whole: number;
  /** Size of an em, in units of the drawing. */
  fontSize: number;
}

/** The reference pixel of CSS is 1/96 in (CSS Values and Units 3, §6.2). */
export const MM_PER_PIXEL = MM_PER_INCH / 96;

const MM: Record<string, number> = {
  px: MM_PER_PIXEL,
  pt: MM_PER_INCH / 72,
  pc: MM_PER_INCH / 6,
  in: MM_PER_INCH,
  cm: 10,
  mm: 1,
  q: 0.25,
  em: 16 * MM_PER_PIXEL,
  rem: 16 * MM_PER_PIXEL,
  ex: 8 * MM_PER_PIXEL,
};

/** Longer than this a length is not one. */
const LONGEST = 64;

/**
 * A length of SVG in units of the drawing (CSS pixels).
 *
 * @throws {ArtworkError} where it is none.
 * @example lengthIn('25%', { whole: 200, fontSize: 16 }) // 50
 * @example lengthIn('2em', { whole: 200, fontSize: 10 }) // 20
 */
export function lengthIn(text: string, { whole, fontSize }: LengthBase): number {
  const { value, unit } = parsed(text);
  if (unit === '' || unit === 'px') return value;
  if (unit === '%') return (value * whole) / 100;
  if (unit === 'em' || unit === 'ex') return value * (unit === 'em' ? fontSize : fontSize / 2);
  return (value * MM[unit]) / MM_PER_PIXEL;
}

/**
 * A length of a drawing's page, mm; undefined for one that depends on the window it is shown in.
 *
 * @throws {ArtworkError} where it is none.
 * @example pageLength('1in') // 25.4
 * @example pageLength('100%') // undefined
 */
export function pageLength(text: string | undefined): number | undefined {
  if (!text || /^\s*auto\s*$/i.test(text)) return undefined;
  const { value, unit } = parsed(text);
  return unit === '%' ? undefined : value * MM[unit || 'px'];
}

function parsed(text: string): { value: number; unit: string } {
  const match =
    text.length > LONGEST ? null : /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(%|[a-z]*)\s*$/i.exec(text);
  const value = Number(match?.[1]);
  const unit = match?.[2].toLowerCase() ?? '';
  if (!match || !Number.isFinite(value) || !(unit === '' || unit === '%' || Object.hasOwn(MM, unit)))
    throw new ArtworkError(
      `The drawing has a length that cannot be read (“${text.slice(0, 20).trim()}”); save it again as plain SVG.`,
    );
  return { value, unit };
}
