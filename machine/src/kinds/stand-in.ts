import type { BaseBench } from '@kerbe/core/document/bench';
import type { StandInStart, Started } from './start-process.ts';

/** Starts a bench's simulated machine as a process of its own, with its clock at `rate` times real time. */
export type StandIn = (bench: BaseBench, how: StandInStart) => Promise<Started>;
