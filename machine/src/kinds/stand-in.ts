import type { BaseBench } from '@kerbe/core/document/bench';
import type { Started } from './start-process.ts';

/** Starts a bench's simulated machine as a process of its own, with its clock at `rate` times real time. */
export type StandIn = (
  bench: BaseBench,
  how: { rate: number; seed: number; port: number; hands: number },
) => Promise<Started>;
