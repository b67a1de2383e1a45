import type { Drawn } from './drawings.ts';
import { Edges, toSegment } from './edges.ts';
import { GOUGE, say } from './finding.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** Every drawn line is followed to depth, in passes, and nothing is cut beside them. */
export function judgeLines(moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = [];
  // Where two outlines share an edge both are followed.
  const lines = drawn.loops.map((loop) => new Edges([loop], 2));
  const off = (x: number, y: number) => Math.min(...lines.map((line) => line.distance(x, y)));
  const deepest = asked.depth;
  let beside: { by: number; move: Move } | undefined;
  /** Moves at full depth, by cells of a millimetre. */
  const cells = new Map<string, Move[]>();
  let level = 0;
  for (const move of moves) {
    const z = Math.min(move.az, move.bz);
    if (z > -1e-3) {
      level = 0;
      continue;
    }
    if (move.feed === 0 && Math.min(move.bz, 0) < move.az - 1e-6) found.push(say(move, 'a rapid move down into wood'));
    // A run begins above the wood and gets deeper by no more than a pass each time; in inches both heights are rounded.
    if (-z > level + asked.perPass + 3e-3) found.push(say(move, `takes ${(-z - level).toFixed(3)} mm at once`));
    level = Math.max(level, -z);
    if (-z > deepest + 2e-3) found.push(say(move, `cuts ${-z} mm deep, ${deepest} were asked for`));
    for (const t of [0, 0.5, 1]) {
      const by = off(move.ax + t * (move.bx - move.ax), move.ay + t * (move.by - move.ay)) - asked.join / 2;
      if (by > (beside?.by ?? GOUGE)) beside = { by, move };
    }
    if (Math.max(move.az, move.bz) > -deepest + 2e-3) continue;
    const [i0, i1] = [Math.min(move.ax, move.bx), Math.max(move.ax, move.bx)].map(Math.floor);
    const [j0, j1] = [Math.min(move.ay, move.by), Math.max(move.ay, move.by)].map(Math.floor);
    for (let i = i0 - 1; i <= i1 + 1; i++)
      for (let j = j0 - 1; j <= j1 + 1; j++) {
        const list = cells.get(`${i} ${j}`);
        if (list) list.push(move);
        else cells.set(`${i} ${j}`, [move]);
      }
  }
  if (beside) found.push(say(beside.move, `cuts ${beside.by.toFixed(4)} mm beside the lines`));
  const followed = (x: number, y: number) =>
    (cells.get(`${Math.floor(x)} ${Math.floor(y)}`) ?? []).some((m) => toSegment(x, y, m.ax, m.ay, m.bx, m.by) < GOUGE);
  for (const loop of drawn.loops)
    for (let k = 0; k < loop.length - (drawn.open ? 1 : 0); k++) {
      const [[ax, ay], [bx, by]] = [loop[k], loop[(k + 1) % loop.length]];
      const pieces = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / 0.5));
      for (let p = 0; p < pieces; p++) {
        const [x, y] = [ax + ((bx - ax) * (p + 0.5)) / pieces, ay + ((by - ay) * (p + 0.5)) / pieces];
        if (!followed(x, y)) found.push(`not followed at ${x.toFixed(3)}, ${y.toFixed(3)}`);
      }
    }
  return [...new Set(found)].slice(0, 4);
}
