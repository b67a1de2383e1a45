import type { Drawn } from './drawings.ts';
import { Edges } from './edges.ts';
import { GOUGE, say, radiusOf, placed } from './finding.ts';
import { judgeCarving } from './judge-carving.ts';
import { judgeDrag } from './judge-drag.ts';
import { judgeHeading } from './judge-heading.ts';
import { judgeHoles } from './judge-holes.ts';
import { judgeLaser } from './judge-laser.ts';
import { judgeLines } from './judge-lines.ts';
import { judgePlasma } from './judge-plasma.ts';
import { judgeOrder } from './judge-order.ts';
import { judgeWood } from './judge-wood.ts';
import { movesOf, type Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** What is wrong with a program for a drawing and settings: one line a finding, none where all is right. */
export function judge(text: string, drawn: Drawn, asked: Asked): string[] {
  if (asked.kind === 'plasma') return judgePlasma(text, drawn, asked);
  if (asked.kind.startsWith('laser-')) return judgeLaser(text, drawn, asked);
  const moves = placed(movesOf(text, asked.kind === 'drag'), asked, drawn);
  if (asked.kind === 'drag') return judgeDrag(text, moves, drawn, asked);
  if (asked.kind === 'v-carve') return judgeCarving(moves, drawn, asked);
  if (asked.kind === 'drill') return judgeHoles(moves, drawn, asked);
  if (asked.kind === 'line') return judgeLines(moves, drawn, asked);
  return judgeFlat(text, moves, drawn, asked);
}

function judgeFlat(text: string, moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = judgeHeading(text, moves, asked);
  const largest = Math.max(asked.diameter, ...asked.clear) / 2;
  const edges = new Edges(drawn.loops, 2 * largest + 1);
  const outside = asked.kind === 'profile' && asked.side === 'outside';
  const on = asked.kind === 'profile' && asked.side === 'on';
  const thick = asked.depth;
  const deepest = asked.skin > 0 ? Math.min(asked.depth, thick - asked.skin) : asked.depth;
  let worst: { by: number; move: Move } | undefined;
  let wrongSide: Move | undefined;
  let low = 0;
  for (const move of moves) {
    const z = Math.min(move.az, move.bz);
    low = Math.min(low, z);
    if (z > -1e-3) continue;
    const radius = radiusOf(asked, move.bit);
    const [mx, my] = [(move.ax + move.bx) / 2, (move.ay + move.by) / 2];
    if (on) {
      if (asked.lead > 0) continue;
      const by = edges.distance(mx, my);
      if (by > (worst?.by ?? GOUGE)) worst = { by, move };
      continue;
    }
    const by = radius - edges.fromMove(move.ax, move.ay, move.bx, move.by, radius);
    if (by > (worst?.by ?? GOUGE)) worst = { by, move };
    if (edges.inside(mx, my) === outside) wrongSide ??= move;
  }
  if (worst) found.push(say(worst.move, `cuts ${worst.by.toFixed(4)} mm beyond the outline`));
  if (wrongSide) found.push(say(wrongSide, 'runs on the wrong side of the outline'));
  if (low < -deepest - 2e-3) found.push(`cuts ${-low} mm deep, ${deepest} were asked for`);
  if (moves.length && low > -deepest + 2e-3) found.push(`cuts only ${-low} mm deep, ${deepest} were asked for`);
  found.push(...judgeWood(text, moves, drawn, asked, edges, deepest));
  if (asked.kind === 'profile') found.push(...judgeOrder(moves, drawn, asked, deepest));
  return found;
}
