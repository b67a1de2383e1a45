import { ofKinds } from '../tools/kinds.ts';
import type { Bit } from '../tools/turned.ts';
import type { Job } from '../document/job.ts';

/** The end mill of the job that is next smaller than a diameter. */
export const nextSmallerMill = ({ bits }: Job, diameter: number): Bit | undefined =>
  ofKinds<Bit>(bits, ['end'])
    .filter((b) => b.diameter < diameter)
    .sort((a, b) => b.diameter - a.diameter)[0];
