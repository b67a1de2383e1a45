import type { Job } from '../document/job.ts';
import type { BesideCut } from '../program/between-cuts.ts';
import type { ProgramCut } from '../program/write.ts';
import type { CutResult } from '../sequence/cut-result.ts';

/** What is said of a cut in a program besides what it does. */
export type SaidOfCut = Pick<ProgramCut, 'title' | 'details' | 'drilling'>;

/** A cut that was made, as a program has it: its tool goes by its place in the job, from 1. */
export function programCut(made: CutResult, job: Pick<Job, 'bits'>, beside: BesideCut, said: SaidOfCut): ProgramCut {
  const number = job.bits.findIndex((bit) => bit.id === made.bit);
  const { id, path, depth, pressed, turns, flat, power, air, feed, plunge, speed, minutes, slope, dwells, pierce } = made; // prettier-ignore
  return {
    id,
    bit: { number: number + 1, name: job.bits[number].name },
    path,
    depth,
    pressed,
    turns,
    flat,
    power,
    air,
    feed,
    plunge,
    speed,
    minutes,
    slope,
    dwells,
    pierce,
    beside,
    ...said,
  };
}
