import type { Drawn } from './drawings.ts';
import { Edges, toSegment } from './edges.ts';
import { GOUGE, say } from './finding.ts';
import { judgeLines } from './judge-lines.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** Sides of the cells in which places are looked for that should have been covered, as a share of the line's width. */
const CELL = 0.5;
/** Places looked at, at most. */
const MOST = 20_000;

/**
 * A point that does not turn: down at once, along at one height, over the work in the air; lines followed as drawn, or areas
 * filled without a line beyond their outlines, the rows a step apart, and what is to be solid without a gap.
 */
export function judgeDrag(text: string, moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const { depth: pressed, diameter: width } = asked;
  const found: string[] = [];
  if (!text.includes('spindle off')) found.push('the heading does not say that the spindle is off');
  const drawing: Move[] = [];
  for (const move of moves) {
    const across = Math.hypot(move.bx - move.ax, move.by - move.ay) > 1e-6;
    if (across && Math.min(move.az, move.bz) < -1e-3) {
      if (move.feed === 0) found.push(say(move, 'goes over by a rapid move while it is pressed'));
      if (Math.abs(move.az + pressed) > 2e-3 || Math.abs(move.bz + pressed) > 2e-3)
        found.push(say(move, `draws at ${move.az} to ${move.bz}, ${-pressed} was asked for`));
      drawing.push(move);
    } else if (!across && move.bz < move.az && move.bz < 0 && move.feed === 0)
      found.push(say(move, 'comes down by a rapid move'));
  }
  if (drawing.length === 0) return [...found, 'draws nothing'];
  // A line that ends beside another's side is joined to it there, too.
  if (asked.pattern === 'outline')
    found.push(...judgeLines(moves, drawn, { ...asked, perPass: pressed, join: 2 * asked.join })); // prettier-ignore
  else found.push(...judgeFilling(drawing, drawn, asked, width));
  return [...new Set(found)].slice(0, 4);
}

function judgeFilling(drawing: Move[], drawn: Drawn, asked: Asked, width: number): string[] {
  const found: string[] = [];
  const edges = new Edges(drawn.loops, width + 1);
  let worst: { by: number; move: Move } | undefined;
  for (const move of drawing) {
    const by = width / 2 - edges.fromMove(move.ax, move.ay, move.bx, move.by, width / 2);
    if (by > (worst?.by ?? GOUGE)) worst = { by, move };
    if (
      !edges.inside((move.ax + move.bx) / 2, (move.ay + move.by) / 2) &&
      edges.distance((move.ax + move.bx) / 2, (move.ay + move.by) / 2) > GOUGE
    )
      // prettier-ignore
      found.push(say(move, 'draws outside the outlines'));
  }
  if (worst) found.push(say(worst.move, `draws ${worst.by.toFixed(4)} mm beyond the outline`));
  const [c, s] = [Math.cos((asked.angle * Math.PI) / 180), Math.sin((asked.angle * Math.PI) / 180)];
  if (asked.pattern === 'hatch' && !asked.solid) {
    // Long moves along the rows lie on lines a step apart.
    const heights = drawing
      .filter(
        (m) =>
          Math.abs((m.by - m.ay) * c - (m.bx - m.ax) * s) < 2e-3 &&
          Math.hypot(m.bx - m.ax, m.by - m.ay) > 4 * asked.step,
      ) // prettier-ignore
      .map((m) => m.ay * c - m.ax * s);
    const first = heights[0] ?? 0;
    const off = heights.find((h) => Math.abs((h - first) / asked.step - Math.round((h - first) / asked.step)) * asked.step > 4e-3); // prettier-ignore
    if (off !== undefined)
      found.push(`a row lies ${(off - first).toFixed(4)} mm from another, no whole number of steps`);
  }
  if (!asked.solid) return found;
  const size = Math.max(1, width);
  const cells = movesByCell(drawing, size, width);
  const all = drawn.loops.flat();
  const [x0, y0] = [Math.min(...all.map(([x]) => x)), Math.min(...all.map(([, y]) => y))];
  const [x1, y1] = [Math.max(...all.map(([x]) => x)), Math.max(...all.map(([, y]) => y))];
  const cell = Math.max(CELL * width, Math.sqrt(((x1 - x0) * (y1 - y0)) / MOST));
  const places: [number, number][] = cornersInwards(drawn.loops, width);
  for (let x = x0 + cell / 2; x < x1; x += cell) for (let y = y0 + cell / 2; y < y1; y += cell) places.push([x, y]);
  for (const [x, y] of places) {
    // The middle of the point can stand there, so it should have been covered.
    if (!edges.inside(x, y) || edges.distance(x, y) < width / 2 + GOUGE) continue;
    const near = cells.get(`${Math.floor(x / size)} ${Math.floor(y / size)}`) ?? [];
    if (!near.some((m) => toSegment(x, y, m.ax, m.ay, m.bx, m.by) <= width / 2 + 0.012))
      return [...found, `a gap at ${x.toFixed(3)}, ${y.toFixed(3)} in what is to be solid`];
  }
  return found;
}

/** Moves by the square cells that they come nearer to than their width. */
function movesByCell(moves: readonly Move[], size: number, width: number): Map<string, Move[]> {
  const cells = new Map<string, Move[]>();
  const cellOf = (v: number) => Math.floor(v / size);
  for (const m of moves) {
    const [low, high] = m.ax < m.bx ? [m.ax, m.bx] : [m.bx, m.ax];
    const heightAt = (x: number) => (high - low < 1e-9 ? m.ay : m.ay + ((m.by - m.ay) * (x - m.ax)) / (m.bx - m.ax));
    for (let i = cellOf(low - width); i <= cellOf(high + width); i++) {
      // What of the move lies over this column, or as near as its width.
      const [from, to] = [Math.max(low, i * size - width), Math.min(high, (i + 1) * size + width)];
      const ends = high - low < 1e-9 ? [m.ay, m.by] : [heightAt(Math.min(from, high)), heightAt(Math.max(to, low))];
      for (let j = cellOf(Math.min(...ends) - width); j <= cellOf(Math.max(...ends) + width); j++) {
        const list = cells.get(`${i} ${j}`);
        if (list) list.push(m);
        else cells.set(`${i} ${j}`, [m]);
      }
    }
  }
  return cells;
}

/** Places along the middle of every corner, inwards and outwards: there rings leave gaps, if anywhere. */
function cornersInwards(loops: Drawn['loops'], width: number): [number, number][] {
  const out: [number, number][] = [];
  for (const loop of loops)
    for (let k = 0; k < loop.length && out.length < MOST; k++) {
      const [[ax, ay], [bx, by], [cx, cy]] = [loop.at(k - 1)!, loop[k], loop[(k + 1) % loop.length]];
      const [p, q] = [Math.hypot(ax - bx, ay - by), Math.hypot(cx - bx, cy - by)];
      const [mx, my] = [(ax - bx) / p + (cx - bx) / q, (ay - by) / p + (cy - by) / q];
      const long = Math.hypot(mx, my);
      // Where it is nearly straight there is no corner.
      if (!(p > 0 && q > 0) || long < 0.3) continue;
      for (let s = 1; s <= 80; s++) for (const way of [1, -1]) out.push([bx + (way * s * 0.1 * width * mx) / long, by + (way * s * 0.1 * width * my) / long]); // prettier-ignore
    }
  return out;
}
