import { Clearance } from '../../geometry/clearance.ts';
import type { KerfLoop } from '../../ways/kerf-loops.ts';
import type { LaserCutFacts } from './facts.ts';

/** Holes wider than this are cut-outs, whose edges cool, mm. */
const WIDEST = 20;

/**
 * Holes nearer to an edge than they are wide (common practice: the web between burns through).
 * @param loops where the middle of the kerf goes. @param kerf mm.
 * @example a hole of 4 mm whose edge lies 3 mm from the edge of its part: that hole, with a web of 3 mm
 */
export function nearEdges(loops: readonly KerfLoop[], kerf: number): LaserCutFacts['nearEdge'] {
  if (loops.length < 2) return [];
  return loops.flatMap(({ points, bounds, scrapInside }, k) => {
    const wide = Math.min(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) + kerf;
    if (!scrapInside || wide > WIDEST) return [];
    const others = loops.filter((other, o) => o !== k && near(other, bounds, wide + kerf));
    if (others.length === 0) return [];
    const edges = Clearance.ofLoops(others.map((other) => other.points));
    let least = Infinity;
    for (let i = 0; i < points.length; i += 2) least = Math.min(least, edges.at(points[i], points[i + 1]));
    const own = Clearance.ofLoops([points]);
    for (const { points: around } of others)
      for (let i = 0; i < around.length; i += 2) least = Math.min(least, own.at(around[i], around[i + 1]));
    const web = least - kerf;
    if (web >= wide - 1e-6) return [];
    return [{ x: (bounds.minX + bounds.maxX) / 2, y: (bounds.minY + bounds.maxY) / 2, wide, web }];
  });
}

const near = ({ bounds: b }: KerfLoop, a: KerfLoop['bounds'], room: number): boolean =>
  b.minX < a.maxX + room && b.maxX > a.minX - room && b.minY < a.maxY + room && b.maxY > a.minY - room;
