import { machineKindOf } from '@kerbe/core/machines/kinds';
import type { Job } from '@kerbe/core/document/job';
import { toolKindOf } from '@kerbe/core/tools/kinds';
import type { JobView } from '../workers/job-view.ts';

/**
 * Whether a tool of the program that is run next turns. Where each bit has a program of its own that is the one that is
 * said to be in, else the first; of a job that is not computed yet something is taken to turn.
 */
export function turnsNext(
  { bits, bench }: Pick<Job, 'bits' | 'bench'>,
  view: Pick<JobView, 'cuts'> | undefined,
  said: { id: string } | undefined,
): boolean {
  const made = view?.cuts.filter(({ problem }) => problem === undefined) ?? [];
  if (machineKindOf(bench).dialect(bench).bits === 'one-each') {
    const next = made.find(({ bit }) => bit === said?.id) ?? made[0];
    const tool = bits.find(({ id }) => id === next?.bit);
    return tool === undefined || toolKindOf(tool).turns;
  }
  return made.length === 0 || made.some(({ turns }) => turns);
}
