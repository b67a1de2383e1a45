import type { BaseBench } from '../document/bench.ts';
import type { KeepOut } from '../document/keep-out.ts';
import type { Stock } from '../document/stock.ts';

/** What holds the work and stands in a tool’s way, mm. */
export type Obstacle = Omit<KeepOut, 'height'> & { height: number };

/** A clamp whose height nobody has measured is taken to stand so high, mm. */
export const UNKNOWN_HEIGHT = 25;

/**
 * What stands in the way of a job’s tools. Pins do only where the bench has them stay up during a run; what was not measured
 * counts as high.
 *
 * @example a clamp of no known height stands 25 mm high
 */
export function obstaclesOf({
  stock,
  bench,
}: {
  stock: Pick<Stock, 'keepOuts'>;
  bench: Pick<BaseBench, 'pins'>;
}): Obstacle[] {
  return stock.keepOuts
    .filter(({ kind }) => kind !== 'pin' || bench.pins === 'stay')
    .map((keepOut) => ({ ...keepOut, height: keepOut.height ?? UNKNOWN_HEIGHT }));
}
