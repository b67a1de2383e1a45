import type { Point } from './point.ts';

/**
 * A rotation in XY (G68) and a scale of each axis (G51) on top of what a program says: first scaled, then turned. By
 * common practice, which docs/formats/programs.md tells; NISTIR 6556 has neither.
 */
export interface TurnedScaled {
  /** The point that a scale leaves in its place, mm, and its factors. */
  scale?: { at: Point; by: Point };
  /** The point that a rotation leaves in its place, mm, and degrees counter-clockwise. */
  turn?: { at: { x: number; y: number }; degrees: number };
}

const turned = (p: Point, at: { x: number; y: number }, degrees: number): Point => {
  const a = (degrees * Math.PI) / 180;
  const [dx, dy] = [p.x - at.x, p.y - at.y];
  return { x: at.x + dx * Math.cos(a) - dy * Math.sin(a), y: at.y + dx * Math.sin(a) + dy * Math.cos(a), z: p.z };
};
const scaled = (p: Point, at: Point, by: Point): Point => ({
  x: at.x + (p.x - at.x) * by.x,
  y: at.y + (p.y - at.y) * by.y,
  z: at.z + (p.z - at.z) * by.z,
});

/**
 * Where a point that a program says really lies.
 * @example laidAt({ x: 3, y: 0, z: 5 }, { scale: { at: { x: 1, y: 0, z: 0 }, by: { x: 2, y: 1, z: 1 } } }) // { x: 5, y: 0, z: 5 }
 */
export function laidAt(p: Point, { scale, turn }: TurnedScaled): Point {
  const one = scale ? scaled(p, scale.at, scale.by) : p;
  return turn ? turned(one, turn.at, turn.degrees) : one;
}

/** What a program says of a point that lies here: {@link laidAt} backwards. */
export function saidOf(p: Point, { scale, turn }: TurnedScaled): Point {
  const one = turn ? turned(p, turn.at, -turn.degrees) : p;
  return scale ? scaled(one, scale.at, { x: 1 / scale.by.x, y: 1 / scale.by.y, z: 1 / scale.by.z }) : one;
}

/** Whether an arc in the plane of these two axes stays an arc. */
export const keepsArcs = ({ scale }: TurnedScaled, a: keyof Point, b: keyof Point): boolean =>
  !scale || Math.abs(scale.by[a]) === Math.abs(scale.by[b]);
