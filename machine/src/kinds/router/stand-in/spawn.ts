import { routerOf } from '@kerbe/core/machines/router/bench';
import type { StandIn } from '../../stand-in.ts';
import { startProcess } from '../../start-process.ts';
import type { MadeAs } from './made-as.ts';

/** Starts the simulated router of a bench, built as the bench says. */
export const startRouter: StandIn = (bench, { rate, seed, port, hands }) => {
  const { travel, limits, setter } = routerOf(bench);
  const made: MadeAs = { travel, limits, setter };
  const values = { port, hands, rate, seed, made: JSON.stringify(made) };
  return startProcess(
    new URL('./main.ts', import.meta.url),
    Object.entries(values).flatMap(([name, value]) => [`--${name}`, String(value)]),
  );
};
