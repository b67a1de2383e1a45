import type { Point } from './axes.ts';

/** How far each axis goes, mm: X and Y grow from the home corner, Z is 0 at the top and negative below. */
type Travel = Point;

/** What a switch at an axis' end lets pass, mm. */
const SLACK = 0.001;

/** The first axis that cannot reach a place. */
export function beyondReach(to: Point, travel: Travel): 'x' | 'y' | 'z' | undefined {
  return (['x', 'y', 'z'] as const).find((axis) =>
    axis === 'z' ? to.z > SLACK || to.z < -travel.z - SLACK : to[axis] < -SLACK || to[axis] > travel[axis] + SLACK,
  );
}

/** The place within reach that is nearest to one, axis by axis. */
export function withinReach({ x, y, z }: Point, travel: Travel): Point {
  const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
  return { x: clamp(x, 0, travel.x), y: clamp(y, 0, travel.y), z: clamp(z, -travel.z, 0) };
}
