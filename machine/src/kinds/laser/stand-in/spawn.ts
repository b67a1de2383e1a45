import { laserOf } from '@kerbe/core/machines/laser/bench';
import type { StandIn } from '../../stand-in.ts';
import { startStandIn } from '../../start-process.ts';
import type { MadeAs } from './made-as.ts';

/** Starts the simulated laser of a bench, built as the bench says. */
export const startLaser: StandIn = (bench, how) => {
  const { travel, limits, watts, full, follows, lid, lag = 0 } = laserOf(bench);
  const made: MadeAs = { travel, limits, watts, full, follows, lid, lag };
  return startStandIn(new URL('./main.ts', import.meta.url), made, how);
};
