import type { Point } from './axes.ts';

/** Machine coordinates: X and Y grow from the home corner, Z is 0 at the top and negative below. */
export const TRAVEL = { x: 820, y: 520, z: 130 };

/** What a switch at an axis' end lets pass, mm. */
const SLACK = 0.001;

/** The first axis that cannot reach a place. */
export function beyondReach(to: Point): 'x' | 'y' | 'z' | undefined {
  return (['x', 'y', 'z'] as const).find((axis) =>
    axis === 'z' ? to.z > SLACK || to.z < -TRAVEL.z - SLACK : to[axis] < -SLACK || to[axis] > TRAVEL[axis] + SLACK,
  );
}

/** The place within reach that is nearest to one, axis by axis. */
export function withinReach({ x, y, z }: Point): Point {
  const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
  return { x: clamp(x, 0, TRAVEL.x), y: clamp(y, 0, TRAVEL.y), z: clamp(z, -TRAVEL.z, 0) };
}
