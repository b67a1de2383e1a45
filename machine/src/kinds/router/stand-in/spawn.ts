import { routerOf } from '@kerbe/core/machines/router/bench';
import type { StandIn } from '../../stand-in.ts';
import { startStandIn } from '../../start-process.ts';
import type { MadeAs } from './made-as.ts';

/** Starts the simulated router of a bench, built as the bench says. */
export const startRouter: StandIn = (bench, how) => {
  const { travel, limits, setter } = routerOf(bench);
  const made: MadeAs = { travel, limits, setter };
  return startStandIn(new URL('./main.ts', import.meta.url), made, how);
};
