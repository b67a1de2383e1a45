import type { Track } from '../motion/track.ts';
import { orderTracks } from './order-tracks.ts';

/** Something that is cut in one go: where it begins and ends, and what it lies in. */
export interface Nested {
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** Number of the one that goes round it; -1 where none does. */
  within: number;
  /** It may be gone along either way. */
  turnable: boolean;
}

/**
 * An order with short links in which whatever lies inside something comes before it.
 *
 * @returns numbers in the order of cutting, and which are gone along backwards.
 * @example a hole in a part: the hole, then the part
 */
export function innerFirst(
  items: readonly Nested[],
  start: { x: number; y: number },
): { item: number; reversed: boolean }[] {
  const inside: number[][] = items.map(() => []);
  const outermost: number[] = [];
  items.forEach(({ within }, k) => (within < 0 ? outermost : inside[within]).push(k));
  type Step = { item: number; reversed: boolean };
  const chain = (k: number): Step[] => {
    const own = [{ item: k, reversed: false }];
    if (inside[k].length === 0) return own;
    // Outwards from where it begins, and gone through the other way: the last of them ends beside it.
    return [...joined(inside[k].map(chain), items[k].from, true), ...own];
  };
  const joined = (chains: readonly Step[][], from: { x: number; y: number }, backwards: boolean): Step[] => {
    const tracks = chains.map((steps): Track => {
      const [first, last] = [items[steps[0].item], items[steps.at(-1)!.item]];
      const [a, b] = backwards ? [last.to, first.from] : [first.from, last.to];
      const oneWay = steps.length > 1 || !first.turnable;
      return { xyz: Float64Array.of(a.x, a.y, 0, b.x, b.y, 0), closed: oneWay, ring: 0, oneWay };
    });
    const order = orderTracks(tracks, from);
    return (backwards ? order.toReversed() : order).flatMap(({ track, reversed }) =>
      reversed ? [{ item: chains[track][0].item, reversed: true }] : chains[track],
    );
  };
  return joined(outermost.map(chain), start, false);
}
