import { type Path, PathBuilder } from '../motion/path.ts';
import { orderTracks } from './order-tracks.ts';
import { CutProblem } from './cut-problem.ts';
import { PLUNGE_CLEARANCE } from './plunge-clearance.ts';

export interface DrillSettings {
  /** How deep the drill's point goes, mm below the top of the stock. */
  depth: number;
  /** How far down at a time, mm; 0 goes down in one. */
  peck: number;
  /** After each peck right out of the hole, so that chips fall off, or only a little, so that they break. */
  retract: 'full' | 'short';
  /** Seconds the bit turns at the bottom. */
  dwell: number;
  plunge: number;
  lift: number;
}

/** A hole of a drilled path, for controllers that drill by a cycle of their own. */
export interface Hole {
  x: number;
  y: number;
  /** As it is drawn, mm; the drill makes its own. */
  diameter?: number;
}

export interface Drilling {
  path: Path;
  /** In the order they are drilled. */
  holes: Hole[];
  /** Points of the path at which the bit dwells. */
  dwells: number[];
}

/** How far a short retract backs up, and above the bottom of the last peck a full one stops its rapid move, mm. */
const BACK_UP = 0.5;

/**
 * Drills holes, nearest next, in pecks.
 * @throws {CutProblem} for settings that cannot be drilled.
 * @example one hole 10 deep in pecks of 4: down to 4, out, to 8, out, to 10
 */
export function drill(places: readonly Hole[], settings: DrillSettings): Drilling {
  const { depth, peck, retract, dwell, plunge, lift } = settings;
  if (!(depth > 0)) throw new CutProblem('The depth is 0, so nothing would be drilled; give it a depth.');
  if (peck < 0) throw new CutProblem('The peck is below 0; give 0 to drill in one go, or a depth.');
  if (peck > 0 && depth / peck > 1000)
    throw new CutProblem('The peck is far too small for this depth; make it larger.');
  const order = orderTracks(
    places.map(({ x, y }) => ({ xyz: Float64Array.of(x, y, 0), closed: true, ring: 0, oneWay: false })),
    { x: 0, y: 0 },
  );
  const builder = new PathBuilder();
  const holes: Hole[] = [];
  const dwells: number[] = [];
  for (const { track } of order) {
    const { x, y } = places[track];
    holes.push(places[track]);
    if (builder.length) builder.rapid(builder.x, builder.y, lift);
    builder.rapid(x, y, lift);
    let reached = 0;
    for (const bottom of pecksOf(depth, peck)) {
      builder.rapid(x, y, reached === 0 ? Math.min(lift, PLUNGE_CLEARANCE) : -reached + BACK_UP);
      builder.to(x, y, -bottom, plunge);
      reached = bottom;
      if (bottom < depth)
        builder.rapid(x, y, retract === 'full' ? Math.min(lift, PLUNGE_CLEARANCE) : -bottom + BACK_UP);
    }
    if (dwell > 0) dwells.push(builder.length - 1);
  }
  if (builder.length) builder.rapid(builder.x, builder.y, lift);
  return { path: builder.done(), holes, dwells };
}

/** Depths that are gone down to one after the other. */
export function pecksOf(depth: number, peck: number): number[] {
  if (!(peck > 0)) return [depth];
  const out: number[] = [];
  for (let d = peck; d < depth - 1e-9; d += peck) out.push(d);
  return [...out, depth];
}
