import { ProgramFollower } from '@kerbe/core/program/follow';
import type { Timeline } from '@kerbe/core/program/timeline';
import { linesOf } from './program-facts.ts';

type Point = { x: number; y: number; z: number };

/** A move of a way: where to, on the axes it names; in machine coordinates (G53) or from the job's zero. */
export interface WayMove {
  to: Partial<Point>;
  direct: boolean;
}

/**
 * A way that no cut's plan holds, since a job does not know where on the machine its stock lies: to the first cut, from a
 * bit's last cut to where it is changed and on to its next, and to the parking place.
 */
export interface ProgramWay {
  way: 'to-first' | 'to-change' | 'from-change' | 'to-park';
  /** The line of the program at which it is made, from 0. */
  line: number;
  /** Where the cut before it ended, from the job's zero, mm. */
  from?: Point;
  moves: WayMove[];
}

const AXES = ['x', 'y', 'z'] as const;

/** The ways of a program that its planned times leave out. @example one cut: to the first, to the park */
export async function programWays(
  bytes: AsyncIterable<Uint8Array>,
  { minutes }: Pick<Timeline, 'minutes'>,
): Promise<ProgramWay[]> {
  const follower = new ProgramFollower();
  const ways: ProgramWay[] = [];
  let moves: WayMove[] = [];
  let from: Point | undefined;
  let open: 'to-first' | 'from-change' | undefined = 'to-first';
  let line = 0;
  /** Axes whose last place was said in machine coordinates. */
  const direct = { x: false, y: false, z: false };
  const put = (way: ProgramWay['way']) => {
    if (moves.length > 0) ways.push({ way, line, from, moves });
    moves = [];
  };
  for await (const text of linesOf(bytes)) {
    const actions = follower.take(text);
    const machine = follower.direct;
    for (const axis of follower.named) direct[axis] = machine;
    const axes = machine ? follower.named : AXES.filter((axis) => follower.known[axis] && !direct[axis]);
    for (const action of actions)
      if (action.do === 'move')
        moves.push({ to: Object.fromEntries(axes.map((axis) => [axis, action.to[axis]])), direct: machine });
    const planned = (minutes[line] ?? 0) > (minutes[line - 1] ?? 0);
    if (planned) {
      if (open) put(open);
      open = undefined;
      moves = [];
      from = { ...follower.modes.at };
    } else if (follower.changes && !open) {
      put('to-change');
      [open, from] = ['from-change', undefined];
    }
    line++;
    if (follower.ended) break;
  }
  line--;
  if (!open) put('to-park');
  return ways;
}
