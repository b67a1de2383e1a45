import type { Limits } from '../motion/limits.ts';
import { type Dwells, planMotion } from '../motion/plan.ts';
import type { Path } from '../motion/path.ts';
import type { BesideCut } from './between-cuts.ts';
import type { Program } from './write.ts';

/** The cuts of a job as they were made, and what is spent beside each: a `JobResult` is one. */
export interface MadeCuts {
  cuts: readonly { id: string; path: Path; dwells?: Dwells }[];
  beside: readonly BesideCut[];
}

/**
 * Planned minutes from a program's start until each `step`th of its lines, bit changes left out.
 *
 * @param made what the program was made from; it may hold cuts of other programs too.
 * @example for a program of 120 lines and a step of 50: three figures, for lines 0, 50 and 100
 */
export function timelineOf(program: Program, made: MadeCuts, limits: Limits, step: number): number[] {
  const lines = program.text.split('\n').length - 1;
  let begun = 0;
  const cuts = program.cuts.map(({ id }) => {
    const k = made.cuts.findIndex((cut) => cut.id === id);
    const plan = planMotion(made.cuts[k].path, limits, made.cuts[k].dwells);
    const start = begun + made.beside[k].before;
    begun = start + plan.minutes;
    return { plan, start };
  });
  const timeline: number[] = [];
  let move = 0;
  let minutes = 0;
  for (let line = 0; line < lines; line++) {
    for (; move < program.moves.length && program.moves[move].line <= line; move++) {
      const { cut, point } = program.moves[move];
      minutes = cuts[cut].start + cuts[cut].plan.at[point];
    }
    if (line % step === 0) timeline.push(minutes);
  }
  return timeline;
}
