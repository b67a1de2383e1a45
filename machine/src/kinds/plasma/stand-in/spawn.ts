import { plasmaOf } from '@kerbe/core/machines/plasma/bench';
import type { StandIn } from '../../stand-in.ts';
import { startStandIn } from '../../start-process.ts';
import type { MadeAs } from './made-as.ts';

/** Starts the simulated plasma table of a bench, built as the bench says. */
export const startPlasma: StandIn = (bench, how) => {
  const { travel, limits, touch, transfer } = plasmaOf(bench);
  const made: MadeAs = { travel, limits, touch, transfer };
  return startStandIn(new URL('./main.ts', import.meta.url), made, how);
};
