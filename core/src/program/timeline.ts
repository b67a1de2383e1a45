import type { Limits } from '../document/limits.ts';
import { type Dwells, planMotion } from '../motion/plan.ts';
import type { Path } from '../motion/path.ts';
import type { BesideCut } from './between-cuts.ts';
import type { Program } from './write.ts';

/** The cuts of a job as they were made, and what is spent beside each: a `JobResult` is one. */
export interface MadeCuts {
  cuts: readonly { id: string; path: Path; waits?: Dwells }[];
  beside: readonly BesideCut[];
}

/** When each line of a program is planned to be finished, minutes from its start, and how much of that is feeding. */
export interface Timeline {
  minutes: Float64Array;
  feeding: Float64Array;
}

/**
 * Planned minutes from a program's start until each of its lines is made, bit changes left out. `feeding` counts what a
 * feed override changes: not rapid moves, dwells and spindle starts.
 *
 * @param made what the program was made from; it may hold cuts of other programs too.
 * @example for a program of 120 lines: two times 120 figures, neither ever falling
 */
export function timelineOf(program: Program, made: MadeCuts, limits: Limits): Timeline {
  const lines = program.text.split('\n').length - 1;
  let begun = 0;
  let fed = 0;
  const cuts = program.cuts.map(({ id }) => {
    const k = made.cuts.findIndex((cut) => cut.id === id);
    const { path, waits } = made.cuts[k];
    const plan = planMotion(path, limits, waits);
    const waiting = new Set(waits?.points);
    const feeding = new Float64Array(path.feed.length);
    for (let i = 1; i < feeding.length; i++) {
      const took = plan.at[i] - plan.at[i - 1] - (waiting.has(i) ? waits!.seconds / 60 : 0);
      feeding[i] = feeding[i - 1] + (path.rapid[i] ? 0 : took);
    }
    const start = begun + made.beside[k].before;
    const cut = { plan, start, feeding, fed };
    begun = start + plan.minutes;
    fed += feeding.at(-1) ?? 0;
    return cut;
  });
  const timeline = { minutes: new Float64Array(lines), feeding: new Float64Array(lines) };
  let move = 0;
  let minutes = 0;
  let feeding = 0;
  for (let line = 0; line < lines; line++) {
    for (; move < program.moves.length && program.moves[move].line <= line; move++) {
      const { cut, point } = program.moves[move];
      minutes = cuts[cut].start + cuts[cut].plan.at[point];
      feeding = cuts[cut].fed + cuts[cut].feeding[point];
    }
    timeline.minutes[line] = minutes;
    timeline.feeding[line] = feeding;
  }
  return timeline;
}
