/** A stretch of a line of writing, px. */
export interface Stretch {
  from: number;
  to: number;
}

/** Where a text begins, or ends. */
export interface Anchored {
  x: number;
  anchor: 'start' | 'end';
}

/** Widths of a letter as the section writes them, px: names, and figures in the even face. */
const LETTER = 7.3;
const FIGURE = 8.5;
/** Room between two texts, px. */
const GAP = 8;

const meet = (a: Stretch, b: Stretch) => a.from < b.to + GAP && b.from < a.to + GAP;

/** How long a name is, px. @example nameWidth('V 60') // 29.2 */
export const nameWidth = (text: string) => text.length * LETTER;

/** What a figure takes that is written over the middle of its line, px. */
export function figureStretch(text: string, from: number, to: number): Stretch {
  const [middle, half] = [(from + to) / 2, (text.length * FIGURE) / 2];
  return { from: Math.min(from, middle - half), to: Math.max(to, middle + half) };
}

/**
 * Where the name of the bit stands in the line above the stock: to its right, else to its left, where it lies within the
 * picture and clear of a dimension in the same line; and whether there is room for that dimension.
 *
 * @param bit the bit's middle, and its half width, px.
 * @param width of the picture, px.
 */
export function besideBit(
  name: string,
  bit: { x: number; half: number },
  width: number,
  dimension?: Stretch,
): Anchored & { clear: boolean } {
  const long = nameWidth(name);
  const right = bit.x + bit.half + GAP;
  const left = bit.x - bit.half - GAP;
  const places: (Anchored & Stretch)[] = [
    { x: right, anchor: 'start', from: right, to: right + long },
    { x: left, anchor: 'end', from: left - long, to: left },
  ];
  const inside = places.filter(({ from, to }) => from >= 0 && to <= width);
  const body = { from: bit.x - bit.half, to: bit.x + bit.half };
  const room = !dimension || !meet(dimension, body);
  const clear = inside.find((place) => !dimension || !meet(place, dimension));
  if (clear) return { x: clear.x, anchor: clear.anchor, clear: room };
  const at = inside[0] ?? { x: Math.max(0, width - long), anchor: 'start' as const };
  return { x: at.x, anchor: at.anchor, clear: false };
}

/**
 * Where a note stands at the left end of the stock, else at its right end, clear of a figure in its line; nothing where
 * both ends are taken.
 */
export function atAnEnd(note: string, stock: Stretch, figure?: Stretch): Anchored | undefined {
  const long = nameWidth(note);
  const left = stock.from + GAP;
  const right = stock.to - GAP;
  if (!figure || !meet({ from: left, to: left + long }, figure)) return { x: left, anchor: 'start' };
  if (!meet({ from: right - long, to: right }, figure)) return { x: right, anchor: 'end' };
  return undefined;
}
