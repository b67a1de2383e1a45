import { boundsOf } from '../geometry/outline.ts';
import type { Shape } from './shape.ts';

/** A circle counts as round when its points keep this near to one distance from its centre, as a share of it. */
const ROUND = 0.02;

/** Outlines smaller than this stand for points, mm. */
export const POINT_SIZE = 0.2;

/** Where to drill: the centres of circles, and of outlines so small that they can only mean a point. */
export interface RoundPlaces {
  /** Centre and diameter, mm. */
  places: { x: number; y: number; diameter: number }[];
  /** Outlines that are neither. */
  others: number;
}

/** @example a circle of 5 mm at (10, 10) and a square: one place, one other */
export function roundPlaces(shapes: readonly Shape[]): RoundPlaces {
  const out: RoundPlaces = { places: [], others: 0 };
  for (const shape of shapes)
    for (const { points } of shape.outlines) {
      const box = boundsOf([{ points }]);
      if (!box) continue;
      const x = (box.minX + box.maxX) / 2;
      const y = (box.minY + box.maxY) / 2;
      const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
      let [least, most] = [Infinity, 0];
      for (let i = 0; i < points.length; i += 2) {
        const d = Math.hypot(points[i] - x, points[i + 1] - y);
        least = Math.min(least, d);
        most = Math.max(most, d);
      }
      // A square's corners lie √2 further out than its sides' middles, but it has only corners to measure.
      const round = points.length >= 16 && most - least <= ROUND * most;
      if (size < POINT_SIZE || round) out.places.push({ x, y, diameter: size });
      else out.others++;
    }
  return out;
}
