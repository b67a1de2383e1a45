import { type Affine, compose, IDENTITY, scale, shift, turn } from '../geometry/affine.ts';
import { radians } from '../quantity/units.ts';
import { ArtworkError } from './artwork-error.ts';
import { lengthIn } from './svg-length.ts';

/** Longer than this a transform is not one. */
const LONGEST = 4000;

const DEGREES: Record<string, number> = { '': 1, deg: 1, grad: 0.9, turn: 360, rad: 180 / Math.PI };

/**
 * A `transform` of SVG, or the plane part of that of CSS, as one map (y down, as it is written).
 *
 * @throws {ArtworkError} where it cannot be read.
 * @example transformOf('translate(10 5) scale(2)') // [2, 0, 0, 2, 10, 5]
 */
export function transformOf(text: string, fontSize = 16): Affine {
  let map = IDENTITY;
  if (text.length > LONGEST)
    throw new ArtworkError('The drawing has a transform that is far too long; save it again as plain SVG.');
  const rest = text.replace(/([a-z]+)\s*\(([^()]*)\)/gi, (whole, name: string, list: string) => {
    const step = stepOf(name.toLowerCase(), list.trim() ? list.trim().split(/[\s,]+/) : [], fontSize);
    if (!step) throw unreadable(whole);
    map = compose(step, map);
    return '';
  });
  if (!/^(\s|,|none)*$/i.test(rest)) throw unreadable(rest.trim());
  return map;
}

function stepOf(name: string, list: string[], fontSize: number): Affine | undefined {
  const plain = list.map(Number);
  const isPlain = plain.every(Number.isFinite);
  const length = (k: number) => (list[k] === undefined ? 0 : lengthIn(list[k], { whole: NaN, fontSize }));
  const angle = (k: number): number => {
    const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z]*)$/i.exec(list[k] ?? '0');
    const degrees = match ? Number(match[1]) * (DEGREES[match[2].toLowerCase()] ?? NaN) : NaN;
    return radians(degrees);
  };
  const made = (): Affine | undefined => {
    const n = list.length;
    if (name === 'matrix' && n === 6 && isPlain) return plain as unknown as Affine;
    if (name === 'translate' && (n === 1 || n === 2)) return shift(length(0), length(1));
    if (name === 'translatex' && n === 1) return shift(length(0), 0);
    if (name === 'translatey' && n === 1) return shift(0, length(0));
    if (name === 'scale' && (n === 1 || n === 2) && isPlain) return scale(plain[0], plain[1] ?? plain[0]);
    if (name === 'scalex' && n === 1 && isPlain) return scale(plain[0], 1);
    if (name === 'scaley' && n === 1 && isPlain) return scale(1, plain[0]);
    if (name === 'rotate' && (n === 1 || n === 3)) {
      const [x, y] = [length(1), length(2)];
      return compose(compose(shift(-x, -y), turn(angle(0))), shift(x, y));
    }
    if (name === 'skewx' && n === 1) return [1, 0, Math.tan(angle(0)), 1, 0, 0];
    if (name === 'skewy' && n === 1) return [1, Math.tan(angle(0)), 0, 1, 0, 0];
    return undefined;
  };
  const step = made();
  return step?.every(Number.isFinite) ? step : undefined;
}

function unreadable(text: string): ArtworkError {
  return new ArtworkError(
    `The drawing has a transform that cannot be read (“${text.slice(0, 60)}”); save it again as plain SVG.`,
  );
}
