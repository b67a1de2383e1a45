import type { BaseCut } from '@kerbe/core/document/cut';
import { unknownSettings } from '@kerbe/core/cuts/settings-origin';
import type { Job } from '@kerbe/core/document/job';
import { formatMinutes } from '@kerbe/core/quantity/format';

/** What stands in place of a time that hangs on a feed nobody has given. */
export const NOT_KNOWN = 'not known';

/** Whether nobody has given a cut's settings for its material and tool: how long it takes is not known. */
export const timeless = (job: Pick<Job, 'bits' | 'stock'>, cut: BaseCut): boolean =>
  unknownSettings(job, cut).length > 0;

/** The cuts of a job whose time is not known, by their ids. */
export const timelessCuts = (job: Pick<Job, 'bits' | 'stock' | 'cuts'>): ReadonlySet<string> =>
  new Set(job.cuts.filter((cut: BaseCut) => timeless(job, cut)).map(({ id }) => id));

/**
 * The time of all cuts for reading, or why there is none.
 * @param without cuts of the job whose time is not known.
 * @example timeInAll(12.5, new Set()) // '12 min 30 s in all'
 * @example timeInAll(12.5, new Set(['a'])) // 'time not known: a cut has no settings'
 */
export function timeInAll(minutes: number, without: ReadonlySet<string>): string {
  if (without.size === 0) return `${formatMinutes(minutes)} in all`;
  return `time ${NOT_KNOWN}: ${without.size === 1 ? 'a cut has' : `${without.size} cuts have`} no settings`;
}
