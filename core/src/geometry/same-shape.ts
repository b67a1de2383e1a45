import type { Loops } from './clipper.ts';

/**
 * Loops count as equal when their points fall onto the same grid of this width, mm, after a shift. It is no round
 * number: points of type often lie just between two marks of a round one, and rounding noise would part equals.
 */
const SAME = 1e-4 * (Math.PI / 3);

/** A text that is the same for loops that are equal up to a shift, seen from (x, y). */
export function shapeKey(loops: Loops, x: number, y: number): string {
  const parts: (string | number)[] = [];
  for (const loop of loops) {
    parts.push('/');
    for (let i = 0; i < loop.length; i += 2)
      parts.push(Math.round((loop[i] - x) / SAME), Math.round((loop[i + 1] - y) / SAME));
  }
  return parts.join(' ');
}

/** Loops moved on the sheet. */
export function shiftLoops(loops: Loops, dx: number, dy: number): Loops {
  return loops.map((loop) => {
    const out = new Float64Array(loop.length);
    for (let i = 0; i < loop.length; i += 2) {
      out[i] = loop[i] + dx;
      out[i + 1] = loop[i + 1] + dy;
    }
    return out;
  });
}
