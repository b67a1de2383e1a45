import { between, type Dice } from './loops.ts';

/** Millimetres in one of each unit; a pixel as CSS has it. */
const UNITS = { mm: 1, in: 25.4, pt: 25.4 / 72, cm: 10, px: 25.4 / 96 };

/** How a drawing is written down: the unit of its page, and a group around its outlines that skews, mirrors and turns. */
export interface Page {
  /** A place on the page, mm, y down, as the group's contents have it. */
  written(x: number, y: number): [number, number];
  svg(width: number, height: number, body: string): string;
}

/** A page in mm as it is. */
export const plainPage: Page = {
  written: (x, y) => [x, y],
  svg: (w, h, body) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${body}</svg>`,
};

/** A page in any unit, its outlines in a skewed, mirrored and turned group, as drawing programs leave them behind. */
export function skewedPage(dice: Dice): Page {
  const names = Object.keys(UNITS) as (keyof typeof UNITS)[];
  const unit = names[Math.floor(dice() * names.length)];
  const mm = UNITS[unit];
  const [scale, turn, skew] = [10 ** between(dice, -2, 2), between(dice, 0, 7), between(dice, -1, 1)];
  const mirror = dice() < 0.5 ? -1 : 1;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [a, b] = [scale * cos, scale * sin];
  const [c, d] = [mirror * scale * (skew * cos - sin), mirror * scale * (skew * sin + cos)];
  const [e, f] = [between(dice, -900, 900), between(dice, -900, 900)];
  const det = a * d - b * c;
  const digits = (v: number) => Number(v.toPrecision(14));
  return {
    written(x, y) {
      const [u, v] = [x / mm - e, y / mm - f];
      return [digits((d * u - c * v) / det), digits((a * v - b * u) / det)];
    },
    svg: (w, h, body) =>
      `<svg xmlns="http://www.w3.org/2000/svg" width="${w / mm}${unit}" height="${h / mm}${unit}" viewBox="0 0 ${w / mm} ${h / mm}"><g transform="matrix(${[a, b, c, d, e, f].join(' ')})">${body}</g></svg>`,
  };
}
