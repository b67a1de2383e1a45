import type { Post } from '../../program/post.ts';
import type { PlasmaBench } from './bench.ts';

/** Slowest that a torch is lowered on to a sheet, for what is planned of a touch-off, mm/min; see `plasma/burn.ts`. */
const DOWN = 1500;

/**
 * A plasma table's words: at each pierce the sheet is felt for (G38.2) and the height counted from there (G92); the arc, its
 * delay, whether the height is followed, and on which side of its
 * way the controller leads the torch where it takes off the kerf, by the words of the bench. At the end the height counts as before (G92.1).
 */
export function plasmaPost({ touch, words, transfer, limits }: PlasmaBench): Post {
  const down = Math.min(DOWN, limits.speed.z / 2);
  return {
    tool: ({ name }) => [{ say: `torch: ${name}` }],
    set: () => [],
    setSeconds: () => 0,
    alike: () => true,
    touch: ({ z, feed }) => [{ line: `G38.2 Z${z(-touch.search)} F${feed}` }, { line: `G92 Z${z(-touch.offset)}` }],
    begin: (_, { delay, level, beside }) => [
      { line: level ? words.level : words.follow },
      { line: words.on },
      ...(delay > 0 ? [{ line: `G4 P${Number(delay.toFixed(3))}` }] : []),
      ...(beside ? [{ line: words[beside] }] : []),
    ],
    end: ({ beside }) => [{ line: words.off }, ...(beside ? [{ line: words.along }] : [])],
    // Until the arc stands, and further down to where the touch is noticed, and up again.
    pierceSeconds: transfer + 60 * (touch.offset / down + touch.offset / limits.speed.z),
    power: () => undefined,
    off: () => [{ line: words.off }, { line: 'G92.1' }],
  };
}
