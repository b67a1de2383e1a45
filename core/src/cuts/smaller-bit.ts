import type { Bit } from '../document/bit.ts';
import type { Job } from '../document/job.ts';

/** The end mill of the job that is next smaller than a diameter. */
export const nextSmallerMill = ({ bits }: Job, diameter: number): Bit | undefined =>
  bits.filter((b) => b.kind === 'end' && b.diameter < diameter).sort((a, b) => b.diameter - a.diameter)[0];
