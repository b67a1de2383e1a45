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

/** When each line of a program is planned to be finished, minutes from its start: as it says, and at feed overrides. */
export interface Timeline {
  minutes: Float64Array;
  /** At other overrides, per cent, in rising order. */
  others: readonly { percent: number; minutes: ArrayLike<number> }[];
}

/** Overrides that are planned; what lies between two is drawn between them by the time a way takes. */
export const PLANNED_AT = [10, 25, 50, 75, 150, 200] as const;

/**
 * Planned minutes from a program's start until each of its lines is made, bit changes left out. An override changes the
 * feed and nothing else, and where acceleration rules it changes little, so each is planned by itself.
 *
 * @param made what the program was made from; it may hold cuts of other programs too.
 * @example for a program of 120 lines: seven times 120 figures, none ever falling
 */
export function timelineOf(program: Program, made: MadeCuts, limits: Limits): Timeline {
  return {
    minutes: minutesAtFeed(program, made, limits, 1),
    others: PLANNED_AT.map((percent) => ({
      percent,
      minutes: Float32Array.from(minutesAtFeed(program, made, limits, percent / 100)),
    })),
  };
}

function minutesAtFeed(program: Program, made: MadeCuts, limits: Limits, share: number): Float64Array {
  let begun = 0;
  const cuts = program.cuts.map(({ id }) => {
    const k = made.cuts.findIndex((cut) => cut.id === id);
    const { path, waits } = made.cuts[k];
    const feed = share === 1 ? path.feed : path.feed.map((asked) => asked * share);
    const plan = planMotion({ ...path, feed }, limits, waits);
    const start = begun + made.beside[k].before;
    begun = start + plan.minutes;
    return { plan, start };
  });
  const times = new Float64Array(program.text.split('\n').length - 1);
  let move = 0;
  let minutes = 0;
  for (let line = 0; line < times.length; line++) {
    for (; move < program.moves.length && program.moves[move].line <= line; move++) {
      const { cut, point } = program.moves[move];
      minutes = cuts[cut].start + cuts[cut].plan.at[point];
    }
    times[line] = minutes;
  }
  return times;
}

/** A program's times without any that are known. */
export const NO_TIMES: Timeline = { minutes: new Float64Array(), others: [] };

/**
 * Planned minutes until so many lines are made, at a feed override.
 *
 * @param lines made, from 0; more than there are count as all.
 * @example minutesUntil({ minutes: Float64Array.of(1, 3), others: [] }, 2, 100) // 3
 */
export function minutesUntil({ minutes, others }: Timeline, lines: number, percent: number): number {
  if (lines <= 0 || minutes.length === 0) return 0;
  const line = Math.min(lines, minutes.length) - 1;
  if (percent === 100 || others.length === 0) return minutes[line];
  const known = [...others, { percent: 100, minutes }].sort((a, b) => a.percent - b.percent);
  const above = known.findIndex((one) => one.percent >= percent);
  if (above <= 0) return known.at(above)!.minutes[line];
  const [a, b] = [known[above - 1], known[above]];
  // Along a way whose feed rules, time goes with one over the override.
  const t = (1 / a.percent - 1 / percent) / (1 / a.percent - 1 / b.percent);
  return a.minutes[line] + t * (b.minutes[line] - a.minutes[line]);
}
