import { depthUnder } from './depth-under.ts';
import type { Drawn } from './drawings.ts';
import { Edges } from './edges.ts';
import { GOUGE, say } from './finding.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** How deep a V-bit's tip may go at a place whose nearest edge is `clearance` away, below where carving starts. */
export function judgeCarving(moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = [];
  const { slope, flat, startDepth } = asked;
  const big = asked.diameter / 2;
  const edges = new Edges(drawn.loops, big + Math.max(0, ...asked.clear) + 1);
  // No deeper than the cone is high, whatever was asked for.
  const limit = Math.min(asked.depth, startDepth + (big - flat) / slope);
  const widthAt = (z: number) => Math.max(0, -z - startDepth) * slope + flat;
  let worst: { by: number; move: Move } | undefined;
  let low = 0;
  const way = moves.reduce((sum, m) => sum + Math.hypot(m.bx - m.ax, m.by - m.ay), 0);
  // Close together on small drawings; never more than a minute's work.
  const every = Math.max(0.02, way / 30_000);
  for (const move of moves) {
    low = Math.min(low, move.az, move.bz);
    const z = Math.min(move.az, move.bz);
    if (z > -startDepth - 1e-3) continue;
    if (move.bit !== 1) {
      const needed = asked.clear[move.bit - 2] / 2 + (-z - startDepth) * slope;
      const by = needed - edges.fromMove(move.ax, move.ay, move.bx, move.by, needed);
      if (by > (worst?.by ?? GOUGE + 2e-3 * slope)) worst = { by, move };
      if (z < -limit - 2e-3) found.push(say(move, `clears ${-z} mm deep, the V-bit reaches ${limit.toFixed(3)}`));
      continue;
    }
    const length = Math.hypot(move.bx - move.ax, move.by - move.ay);
    const steps = Math.max(1, Math.min(400, Math.ceil((length + Math.abs(move.bz - move.az) * slope) / every)));
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      const x = move.ax + t * (move.bx - move.ax);
      const y = move.ay + t * (move.by - move.ay);
      const depth = move.az + t * (move.bz - move.az);
      if (depth > -startDepth - 1e-6) continue;
      // Half a thousandth of a rounded depth is so much in width.
      const away = edges.distance(x, y);
      const by = widthAt(depth) - 6e-4 * slope - away;
      if (by > (worst?.by ?? GOUGE)) worst = { by, move };
      // In the middle of what is not to be carved a cone may touch its walls all round, and cut none of them.
      if (away > 2 * GOUGE && !edges.inside(x, y)) found.push(say(move, 'carves outside the outline'));
    }
  }
  if (worst) found.push(say(worst.move, `cuts ${worst.by.toFixed(4)} mm beyond the outline`));
  if (low < -limit - 2e-3) found.push(`carves ${-low} mm deep, ${limit} is the most`);
  found.push(...judgeCarved(moves, asked, edges, limit));
  return [...new Set(found)].slice(0, 4);
}

/** At places all over, the wood is as deep as the cone between the walls goes. */
function judgeCarved(moves: Move[], asked: Asked, edges: Edges, limit: number): string[] {
  const { slope, flat, startDepth } = asked;
  const { bounds } = edges;
  const big = asked.diameter / 2;
  // Between two rings a corner of 90° lies (2 − √2) steps from both, which is further than half a step.
  const ridge = Math.max(0, ((2 - Math.SQRT2) * asked.step - flat) / slope);
  const [w, h] = [bounds.maxX - bounds.minX, bounds.maxY - bounds.minY];
  const deepest = moves.reduce((most, { bz }) => Math.max(most, -bz), 0);
  const grid = Math.max(0.3, Math.max(w, h) / 60, Math.min(big, deepest * slope) / 3);
  const cells = new Map<number, Move[]>();
  const cell = (i: number, j: number) => i * 1_000_003 + j;
  const cellOf = (value: number) => Math.floor(value / grid);
  for (const move of moves) {
    if (Math.min(move.az, move.bz) > 0 || move.feed === 0) continue;
    const low = -Math.min(move.az, move.bz) - startDepth;
    const r = (move.bit === 1 ? Math.min(big, flat + Math.max(0, low) * slope) : asked.clear[move.bit - 2] / 2) + 0.02;
    const [x0, x1] = [cellOf(Math.min(move.ax, move.bx) - r), cellOf(Math.max(move.ax, move.bx) + r)];
    const [y0, y1] = [cellOf(Math.min(move.ay, move.by) - r), cellOf(Math.max(move.ay, move.by) + r)];
    for (let i = x0; i <= x1; i++)
      for (let j = y0; j <= y1; j++) {
        const list = cells.get(cell(i, j));
        if (!list) cells.set(cell(i, j), [move]);
        else list.push(move);
      }
  }
  const places = 400;
  const across = Math.max(2, Math.round(Math.sqrt((places * w) / Math.max(h, 1e-6))));
  const up = Math.max(2, Math.round(places / across));
  let worst: { by: number; x: number; y: number } | undefined;
  for (let i = 0; i < across; i++)
    for (let j = 0; j < up; j++) {
      const x = bounds.minX + ((i + 0.5 + 0.3 * Math.sin(7 * j + i)) * w) / across;
      const y = bounds.minY + ((j + 0.5 + 0.3 * Math.sin(5 * i + j)) * h) / up;
      if (!edges.inside(x, y)) continue;
      const clear = edges.distance(x, y);
      // In the middle of a groove the tip is as flat as it is.
      const wanted = Math.min((clear - flat) / slope, limit - startDepth - ridge);
      if (wanted <= 0.05) continue;
      let depth = 0;
      for (const move of cells.get(cell(cellOf(x), cellOf(y))) ?? [])
        depth = Math.max(depth, depthUnder(move, x, y, asked) - startDepth);
      const by = wanted - depth;
      if (by > (worst?.by ?? 0.012 / slope + 0.02)) worst = { by, x, y };
    }
  return worst ? [`leaves ${worst.by.toFixed(3)} mm standing at ${worst.x.toFixed(2)}, ${worst.y.toFixed(2)}`] : [];
}
