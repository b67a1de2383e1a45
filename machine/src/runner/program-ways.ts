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
  const put = (way: ProgramWay['way']) => {
    if (moves.length > 0) ways.push({ way, line, from, moves });
    moves = [];
  };
  for await (const text of linesOf(bytes)) {
    const direct = /G\s*0*53(?!\d|\.)/i.test(text.replace(/\(.*?\)|;.*/g, ''));
    for (const action of follower.take(text))
      if (action.do === 'move') moves.push({ to: named(action.to, text, direct, follower.known), direct });
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

/** Of a move in machine coordinates only the axes it names, of others all whose place is known by now. */
function named(to: Point, text: string, direct: boolean, known: Record<keyof Point, boolean>): Partial<Point> {
  const axes = (['x', 'y', 'z'] as const).filter((axis) => (direct ? new RegExp(axis, 'i').test(text) : known[axis]));
  return Object.fromEntries(axes.map((axis) => [axis, to[axis]]));
}
