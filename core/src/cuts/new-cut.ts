import type { Job } from '../document/job.ts';
import { CutSchema } from './cut-schema.ts';
import { freshCut } from './fresh-cut.ts';
import { fromJob } from './from-job.ts';
import { CUT_KINDS, type Cut, type CutKindName, kindOf } from './kinds.ts';

/**
 * A new cut of a kind, with the first fitting bit and its settings for the job's material; nothing where the job has no
 * such bit.
 */
export function newCut(job: Job, kind: CutKindName, id: string): Cut | undefined {
  const bit = CUT_KINDS[kind].bits.map((k) => job.bits.find((b) => b.kind === k)).find((b) => b !== undefined);
  return bit && CutSchema.parse(freshCut(kind, kindOf({ kind }), id, fromJob(job, bit)));
}
