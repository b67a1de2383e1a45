import type { BaseBench } from '../document/bench.ts';
import type { Stock } from '../document/stock.ts';
import { heightOverAll } from '../stock/keep-out.ts';
import { obstaclesOf } from '../stock/obstacles.ts';

/**
 * Height at which a tool comes from anywhere, mm above the stock: over all that holds the work, and over what some cuts
 * may have freed, now or in a run before.
 *
 * Tools that stay at one height stay at that of the surface, as far as a path knows.
 *
 * @example approachOver({ stock: { keepOuts: [], lift: 5 }, bench: { pins: 'none' } }, [{}, { approach: 40 }]) // 40
 */
export function approachOver(
  job: { stock: Pick<Stock, 'keepOuts' | 'lift'>; bench: Pick<BaseBench, 'pins'> },
  cuts: readonly { approach?: number; flat?: true }[],
): number {
  if (cuts.length > 0 && cuts.every(({ flat }) => flat)) return 0;
  return Math.max(heightOverAll(obstaclesOf(job), job.stock.lift), ...cuts.map(({ approach = 0 }) => approach));
}
