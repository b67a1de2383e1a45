import type { PlacedItem } from '../artwork/place.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { CutResult } from '../sequence/cut-result.ts';

/** A job with its result, as the rules judge it. */
export interface Judged {
  job: Job;
  items: readonly PlacedItem[];
  cuts: readonly CutResult[];
  /** Computes a changed cut with all its bits, to measure what a remedy would gain. */
  tryCut: (cut: BaseCut) => Promise<CutResult[]>;
}

/** A cut of the job with what its own bit does and its number in the document. */
export interface CutAndResult {
  cut: BaseCut;
  index: number;
  result: CutResult;
}

export function cutsOf({ job, cuts }: Judged): CutAndResult[] {
  return cuts.flatMap((result) => {
    const index = job.cuts.findIndex((cut) => cut.id === result.id);
    return index < 0 ? [] : [{ cut: job.cuts[index], index, result }];
  });
}
