import type { Drawn } from './drawings.ts';
import { say } from './finding.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** Every hole at its place, to its depth, by pecks; and no rapid move into what is not drilled yet. */
export function judgeHoles(moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = [];
  const reached = new Map<number, number>();
  for (const move of moves) {
    if (Math.min(move.az, move.bz) >= 0) continue;
    if (Math.hypot(move.bx - move.ax, move.by - move.ay) > 1e-6) found.push(say(move, 'goes sideways in a hole'));
    const hole = drawn.loops.findIndex(([[x, y]]) => Math.hypot(move.bx - x, move.by - y) < 2e-3);
    if (hole < 0) {
      found.push(say(move, 'drills where no hole is drawn'));
      continue;
    }
    const deep = reached.get(hole) ?? 0;
    if (move.bz >= move.az) continue;
    const most = asked.peck > 0 ? asked.peck : asked.depth;
    if (move.feed === 0 && -move.bz > deep + 1e-6) found.push(say(move, 'a rapid move into undrilled wood'));
    if (-move.bz > deep + most + 3e-3) found.push(say(move, `drills ${(-move.bz - deep).toFixed(3)} mm at once`));
    reached.set(hole, Math.max(deep, -move.bz));
  }
  drawn.loops.forEach((_, k) => {
    if (Math.abs((reached.get(k) ?? 0) - asked.depth) > 2e-3)
      found.push(`hole ${k + 1} is ${reached.get(k) ?? 0} mm deep`);
  });
  return [...new Set(found)].slice(0, 4);
}
