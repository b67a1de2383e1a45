import type { Drawn } from './drawings.ts';
import { Edges, toSegment } from './edges.ts';
import { placed } from './finding.ts';
import { judgeHeading } from './judge-heading.ts';
import { judgeWood } from './judge-wood.ts';
import { type Move, movesOf } from './moves.ts';
import type { Asked } from './asked.ts';

/** The fit may be off by so much, mm: each half's moves keep within 10 µm of their outline, and two halves make a fit. */
const OFF = 0.02;

/**
 * What is wrong with the two programs of an inlay: each by itself, and the two as a pair.
 * @param misfit whether it was said that the pair does not fit.
 */
export function judgeInlay(recess: string, part: string, drawn: Drawn, asked: Asked, misfit: boolean): string[] {
  const found: string[] = [];
  const radius = asked.diameter / 2;
  const edges = new Edges(drawn.loops, asked.diameter + 1);
  const [inner, outer] = [recess, part].map((text) => placed(movesOf(text), asked, drawn));
  for (const [name, text, moves, side] of [
    ['recess', recess, inner, 'inside'],
    ['part', part, outer, 'outside'],
  ] as const) {
    const own: Asked = { ...asked, side, tabs: side === 'inside' ? { ...asked.tabs, count: 0 } : asked.tabs };
    const low = moves.reduce((least, m) => Math.min(least, m.az, m.bz), 0);
    const mine = judgeHeading(text, moves, own);
    if (Math.abs(low + asked.depth) > 2e-3) mine.push(`is ${-low} mm deep, ${asked.depth} were asked for`);
    mine.push(...judgeWood(text, moves, drawn, own, edges, asked.depth));
    found.push(...mine.map((finding) => `${name}: ${finding}`));
  }
  // Where both walls run side by side their bits' middles are two radii apart, less the gap or more by the press.
  const apart = 2 * radius - asked.fit;
  const level = (moves: Move[]) => moves.filter((m) => m.feed > 0 && Math.max(m.az, m.bz) < -asked.depth + 2e-3);
  const [floor, walls] = [level(inner), level(outer)];
  if (misfit || floor.length === 0 || walls.length === 0) return found;
  // A bit further apart is found, too, and said in numbers.
  const size = apart + 1;
  const cells = new Map<string, Move[]>();
  for (const m of floor)
    for (let i = Math.floor(Math.min(m.ax, m.bx) / size) - 1; i <= Math.floor(Math.max(m.ax, m.bx) / size) + 1; i++)
      for (let j = Math.floor(Math.min(m.ay, m.by) / size) - 1; j <= Math.floor(Math.max(m.ay, m.by) / size) + 1; j++) {
        const list = cells.get(`${i} ${j}`);
        if (list) list.push(m);
        else cells.set(`${i} ${j}`, [m]);
      }
  let worst: { by: number; line: number } | undefined;
  const every = Math.max(1, Math.floor(walls.length / 4000));
  for (let k = 0; k < walls.length; k += every) {
    const m = walls[k];
    const [x, y] = [(m.ax + m.bx) / 2, (m.ay + m.by) / 2];
    let near = Infinity;
    for (const f of cells.get(`${Math.floor(x / size)} ${Math.floor(y / size)}`) ?? [])
      near = Math.min(near, toSegment(x, y, f.ax, f.ay, f.bx, f.by));
    const by = Math.min(Math.abs(near - apart), 99);
    if (by > (worst?.by ?? OFF)) worst = { by: near - apart, line: m.line };
    if (worst) worst.by = Math.abs(worst.by);
  }
  if (worst) found.push(`part, line ${worst.line}: the fit is off by ${worst.by.toFixed(3)} mm`);
  return found;
}
