import type { Operation } from 'fast-json-patch';
import type { PlacedItem } from '../artwork/place.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { BaseTool } from '../document/tool.ts';
import type { MeasuredPart } from './cut-part.ts';

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
  /** No program is written while it stands. */
  withholds?: true;
  remedies: Remedy[];
}

/** A cut that could be made, as its kind judges it. */
export interface JudgedCut<C extends BaseCut = BaseCut, F = unknown, T extends BaseTool = BaseTool> {
  job: Job;
  items: readonly PlacedItem[];
  cut: C;
  /** Its number in the document. */
  index: number;
  /** Its own tool. */
  own: T;
  /** What its own bit does. */
  result: MeasuredPart<F>;
  /** What all its bits do. */
  parts: readonly MeasuredPart[];
  /** Computes a changed cut with all its bits, to measure what a remedy would gain. */
  tryCut(cut: C): Promise<MeasuredPart[]>;
}

/** The patch that sets fields of one cut. */
export function setCut(index: number, fields: object): Operation[] {
  return Object.entries(fields).map(([path, value]: [string, unknown]) => ({
    // What a cut may leave out has nothing to be replaced.
    op: path === 'settings' ? 'add' : 'replace',
    path: `/cuts/${index}/${path}`,
    value,
  }));
}
