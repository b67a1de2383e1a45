import { Clearance } from '../geometry/clearance.ts';
import { OwnFault } from '../schema/own-fault.ts';
import { PAST_OUTLINE } from './checked.ts';
import type { Run } from './joined-lines.ts';

/** @throws {OwnFault} where a run strays from what was drawn by more than half of a bridge. */
export function checkOnLines(
  runs: readonly Run[],
  lines: readonly { points: ArrayLike<number>; closed: boolean }[],
  join: number,
): void {
  const ends: [number, number, number, number][] = [];
  for (const { points, closed } of lines)
    for (let i = closed ? 0 : 2, j = closed ? points.length - 2 : 0; i < points.length; j = i, i += 2)
      ends.push([points[j], points[j + 1], points[i], points[i + 1]]);
  const [ax, ay, bx, by] = [0, 1, 2, 3].map((k) => Float64Array.from(ends, (end) => end[k]));
  const drawn = new Clearance(ends.length, ax, ay, bx, by);
  for (const { points } of runs)
    for (let i = 2; i < points.length; i += 2) {
      const [x, y] = [(points[i - 2] + points[i]) / 2, (points[i - 1] + points[i + 1]) / 2];
      if (drawn.at(x, y) > join / 2 + PAST_OUTLINE)
        throw new OwnFault(
          `Kerbe’s own check found a move beside the lines near ${x.toFixed(1)}, ${y.toFixed(1)} mm, so this cut is not made. That is a fault of Kerbe, not of the drawing.`,
        );
    }
}
