import type { SheetFrame } from '../sheet-frame.ts';

interface Place {
  x: number;
  y: number;
}

/** So many handles of a cut can be taken at once; where more are in sight they are only drawn. */
export const MOST_HANDLES = 400;

/**
 * Numbers of the handles that can be taken: all where they are few, else those in sight; undefined while too many are.
 * @param places mm of the sheet.
 * @param seen size of the sheet's view, px; what lies up to 40 px beside it counts as in sight.
 */
export function handlesInHand(
  places: readonly Place[],
  { k, left, base }: SheetFrame,
  seen: { width: number; height: number },
): number[] | undefined {
  const all = [...places.keys()];
  if (places.length <= MOST_HANDLES) return all;
  const within = (px: number, size: number) => px >= -40 && px <= size + 40;
  const near = all.filter(
    (i) => within(left + k * places[i].x, seen.width) && within(base - k * places[i].y, seen.height),
  );
  return near.length <= MOST_HANDLES ? near : undefined;
}

/**
 * The n-th of its word, from 1, for each of a row of words.
 * @example ordinals(['tab', 'tab', 'start', 'tab']) // [1, 2, 1, 3]
 */
export function ordinals(words: readonly string[]): number[] {
  const counted = new Map<string, number>();
  return words.map((word) => {
    const n = (counted.get(word) ?? 0) + 1;
    counted.set(word, n);
    return n;
  });
}
