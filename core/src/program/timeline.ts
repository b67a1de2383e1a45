import type { Limits } from '../motion/limits.ts';
import { planMotion } from '../motion/plan.ts';
import type { Path } from '../motion/path.ts';
import type { Program } from './write.ts';

/**
 * Planned minutes from a program's start until each `step`th of its lines, bit changes and spindle starts left out.
 *
 * @param pathOf the path of a cut by its id.
 * @example for a program of 120 lines and a step of 50: three figures, for lines 0, 50 and 100
 */
export function timelineOf(program: Program, pathOf: (cut: string) => Path, limits: Limits, step: number): number[] {
  const lines = program.text.split('\n').length - 1;
  const plans = program.cuts.map(({ id }) => planMotion(pathOf(id), limits));
  const starts: number[] = [];
  plans.reduce((sum, plan, index) => {
    starts[index] = sum;
    return sum + plan.minutes;
  }, 0);
  const timeline: number[] = [];
  let move = 0;
  let minutes = 0;
  for (let line = 0; line < lines; line++) {
    for (; move < program.moves.length && program.moves[move].line <= line; move++) {
      const { cut, point } = program.moves[move];
      minutes = starts[cut] + plans[cut].at[point];
    }
    if (line % step === 0) timeline.push(minutes);
  }
  return timeline;
}
