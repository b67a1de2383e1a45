import type { Operation } from 'fast-json-patch';
import type { PlacedItem } from '../artwork/place.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import type { Cut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';

export type Stop = 'artwork' | 'stock' | 'bits' | 'cuts';

/** A change that mends what a remark is about, as a JSON Patch (RFC 6902) on the job document. */
export interface Remedy {
  label: string;
  patch: Operation[];
}

/** Something about a job that is wrong, or could be better. */
export interface Remark {
  /** The same for the same matter, so that a screen can follow it. */
  id: string;
  stop: Stop;
  /** The cut it is about. */
  cut?: string;
  /** `wrong` must be mended before a run; `advice` may be. */
  weight: 'wrong' | 'advice';
  text: string;
  remedies: Remedy[];
}

export interface Judged {
  job: Job;
  items: readonly PlacedItem[];
  cuts: readonly CutResult[];
  /** Computes a changed cut with all its bits, to measure what a remedy would gain. */
  tryCut: (cut: Cut) => Promise<CutResult[]>;
}

/** A cut of the job with what its own bit does and its number in the document. */
export interface JudgedCut {
  cut: Cut;
  index: number;
  result: CutResult;
}

export function cutsOf({ job, cuts }: Judged): JudgedCut[] {
  return cuts.flatMap((result) => {
    const index = job.cuts.findIndex((cut) => cut.id === result.id);
    return index < 0 ? [] : [{ cut: job.cuts[index], index, result }];
  });
}

/** The patch that sets fields of one cut. */
export function setCut(index: number, fields: Record<string, unknown>): Operation[] {
  return Object.entries(fields).map(([path, value]) => ({ op: 'replace', path: `/cuts/${index}/${path}`, value }));
}
