import type { JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { driverOf } from '../kinds/kinds.ts';
import type { ProgramOrder } from './commands.ts';
import { mulberry } from '../stand-in/random.ts';
import { LaserBenchForTests } from './laser-bench-for-tests.ts';
import { PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob, TestBench } from './test-bench.ts';

export const MACHINES = ['router', 'plasma', 'laser'] as const;
export type MachineName = (typeof MACHINES)[number];
export type AnyBench = TestBench | PlasmaBenchForTests | LaserBenchForTests;

const JOBS = { router: 'comet-marker', plasma: 'garden-markers', laser: 'star-tags' } as const;

/** A bench of each kind of machine, set up for a demo job, and what tests ask of any of them. */
export interface SetUpBench {
  bench: AnyBench;
  job: Job;
  order: ProgramOrder;
  /** Zero and the list once more, as after a link that was lost. */
  again(): Promise<void>;
}

/** A demo job of that kind of machine; before a bench is made, since its clock is not real. */
export const jobFor = (machine: MachineName): Promise<{ job: Job; result: JobResult }> => demoJob(JOBS[machine]);

export async function setUpBench(machine: MachineName, seed: number, rate = 5): Promise<SetUpBench> {
  const { job, result } = await jobFor(machine);
  if (machine === 'router') {
    const bench = new TestBench({ seed, rate });
    const first = job.cuts[0].bit;
    const whole = async () => bench.setUp(job, bench.order(job, result).cuts[0].bit.id ?? first);
    await whole();
    return { bench, job, order: bench.order(job, result), again: whole };
  }
  const bench = machine === 'plasma' ? new PlasmaBenchForTests({ seed, rate }) : new LaserBenchForTests({ seed, rate });
  await bench.setUp(job);
  return { bench, job, order: bench.order(job, result), again: () => bench.setUp(job) };
}

/** Whether anything is on at the machine, by the machine itself. */
export function lit(bench: AnyBench): boolean {
  const state = bench.machine.state();
  return driverOf(bench.state.facts!.kind).live(state);
}

/** Random numbers from a seed, 0 to 1. */
export const dice = (seed: number): (() => number) => mulberry(Math.imul(seed, 2_654_435_761));
