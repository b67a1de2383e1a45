import type { Job } from '@kerbe/core/document/job';
import { lengthNumber } from '@kerbe/core/quantity/format';
import { zeroOf } from '@kerbe/core/stock/stock';

interface Place {
  x: number;
  y: number;
}

/** Something flat on a bench, as it lies: its lower left corner, and how it is turned, radians. */
export interface Lies extends Place {
  turn: number;
  length: number;
  width: number;
}

/** A place of it, from its corner along its edges, on the bench. @example onBench({ x: 10, y: 5, turn: 0, length: 9, width: 9 }, 1, 2) // { x: 11, y: 7 } */
export const onBench = ({ x: cx, y: cy, turn }: Lies, x: number, y: number): Place => ({
  x: cx + x * Math.cos(turn) - y * Math.sin(turn),
  y: cy + x * Math.sin(turn) + y * Math.cos(turn),
});

/** Its four corners, as points of a drawing. */
export const cornersOf = (lies: Lies): Place[] =>
  [[0, 0], [lies.length, 0], [lies.length, lies.width], [0, lies.width]].map(([x, y]) => onBench(lies, x, y)); // prettier-ignore

/** How far a spot is from the mark of zero and from a place far along the edge, in words, as a glance would judge it. */
export function away(
  lies: Lies,
  spot: Place,
  { stock, unit }: Pick<Job, 'stock' | 'unit'>,
): { zero: string; edge: string } {
  const mark = zeroOf(stock);
  const show = (mm: number) => `${lengthNumber(Math.abs(mm), unit, Math.abs(mm) < 10 ? 1 : 0)} ${unit}`;
  const to = (x: number, y: number) => {
    const place = onBench(lies, x, y);
    const [dx, dy] = [place.x - spot.x, place.y - spot.y];
    return `${show(dx)} to the ${dx >= 0 ? 'right' : 'left'}, ${show(dy)} ${dy >= 0 ? 'back' : 'in front'}`;
  };
  return { zero: to(mark.x, mark.y), edge: to(mark.x < lies.length / 2 ? lies.length - 20 : 20, mark.y) };
}
