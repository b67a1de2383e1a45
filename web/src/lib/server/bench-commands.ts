import type { Kysely } from 'kysely';
import type { Command, From, PageCommand } from '@kerbe/machine/runner/commands';
import { basisOf, benchFactsOf } from '@kerbe/machine/runner/of-job';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { openJob } from './jobs.ts';
import { BenchProblem, doorOf, tellRunner } from './runner-client.ts';
import type { Tables } from './tables.ts';

/**
 * Passes a page's command to a bench; where it names a job, with what the job says as it stands now.
 * @param db asked for only then: Hold, Stop and whatever else names no job must not wait for a database.
 */
export async function tellBench(
  bench: string,
  db: () => Promise<Kysely<Tables>>,
  command: PageCommand,
  from: From,
): Promise<RunnerState> {
  return tellRunner(bench, await filledIn(bench, db, command), from);
}

async function filledIn(bench: string, db: () => Promise<Kysely<Tables>>, command: PageCommand): Promise<Command> {
  const jobFor = async (id: string) => {
    const { job } = await openJob(await db(), id);
    if (job.bench.id !== bench)
      throw new BenchProblem(`This job is for ${job.bench.name}; choose this bench at Set-up first.`);
    return job;
  };
  if (!('job' in command) || command.command === 'tick') return command;
  const job = await jobFor(command.job);
  if (command.command === 'connect') {
    if (job.bench.link !== 'stand-in')
      throw new BenchProblem('This bench is not linked to Kerbe; its programs are carried over by hand.');
    return { command: 'connect', port: doorOf(bench).standIn, bench: benchFactsOf(job) };
  }
  const { job: id, ...rest } = command;
  const { stock } = job;
  // Over the work, also where zero lies on the board under it.
  const lift = stock.lift + (stock.zeroZ === 'stock' ? 0 : Math.max(...stock.corners));
  // The runner looks at it once more, and leaves out what a command has no use for.
  return { ...rest, basis: basisOf(id, job), lift } as Command;
}
