import { boundsOf } from '../geometry/outline.ts';
import type { Shape } from './shape.ts';

/**
 * A shape so many times as large, about the middle of its box.
 * @example a square of 10 at 0 to 10, 1.1 times as large: from −0.5 to 10.5
 */
export function largerShape<S extends Shape>(shape: S, times: number): S {
  const box = boundsOf(shape.outlines);
  if (!box) return shape;
  const middle = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const outlines = shape.outlines.map((outline) => ({
    ...outline,
    points: outline.points.map((v, i) => middle[i % 2] + times * (v - middle[i % 2])),
  }));
  return { ...shape, outlines };
}
