import type { Kysely } from 'kysely';
import type { Command, From, PageCommand } from '@kerbe/machine/runner/commands';
import { basisOf, benchFactsOf } from '@kerbe/machine/runner/of-job';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { config } from './config.ts';
import { openJob } from './jobs.ts';
import { BenchProblem, tellRunner } from './runner-client.ts';
import type { Tables } from './tables.ts';

/**
 * Passes a page's command to the bench; where it names a job, with what the job says as it stands now.
 * @param db asked for only then: Hold, Stop and whatever else names no job must not wait for a database.
 */
export async function tellBench(
  db: () => Promise<Kysely<Tables>>,
  command: PageCommand,
  from: From,
): Promise<RunnerState> {
  return tellRunner(await filledIn(db, command), from);
}

async function filledIn(db: () => Promise<Kysely<Tables>>, command: PageCommand): Promise<Command> {
  switch (command.command) {
    case 'connect': {
      const { job } = await openJob(await db(), command.job);
      if (job.bench.link !== 'stand-in')
        throw new BenchProblem('This bench is not linked to Kerbe; its programs are carried over by hand.');
      return { command: 'connect', port: config().KERBE_STAND_IN_PORT, bench: benchFactsOf(job) };
    }
    case 'zero': {
      const { job } = await openJob(await db(), command.job);
      const { method, corner } = command;
      return { command: 'zero', method, corner, basis: basisOf(command.job, job) };
    }
    case 'go-to-zero': {
      const { job } = await openJob(await db(), command.job);
      const { stock } = job;
      // Over the work, also where zero lies on the board under it.
      const lift = stock.lift + (stock.zeroZ === 'stock' ? 0 : Math.max(...stock.corners));
      return { command: 'go-to-zero', basis: basisOf(command.job, job), lift };
    }
    case 'use-here': {
      const { job } = await openJob(await db(), command.job);
      return { command: 'use-here', basis: basisOf(command.job, job) };
    }
    default:
      return command;
  }
}
