import { refitLoop } from '../geometry/refit.ts';
import type { Shape } from './shape.ts';

/** What shapes are made of, and what refitting them came to. */
export interface Nodes {
  /** Curves and lines the outlines were drawn with, and those they have now. */
  drawn: number;
  now: number;
  /** How far refitting moved an edge at most, mm. */
  off: number;
}

/**
 * Draws the closed outlines of shapes anew with few smooth curves; see `refitLoop`.
 *
 * @param tolerance mm; 0 leaves them as drawn and only counts.
 */
export function refitShapes<S extends Shape>(shapes: readonly S[], tolerance: number): { shapes: S[]; nodes: Nodes } {
  const nodes: Nodes = { drawn: 0, now: 0, off: 0 };
  const made = shapes.map((shape) => ({
    ...shape,
    outlines: shape.outlines.map((outline) => {
      const drawn = outline.nodes ?? outline.points.length / 2;
      nodes.drawn += drawn;
      if (!(tolerance > 0) || !outline.closed) {
        nodes.now += drawn;
        return outline;
      }
      const fitted = refitLoop(outline.points, tolerance, drawn);
      nodes.now += fitted.nodes;
      nodes.off = Math.max(nodes.off, fitted.off);
      return { ...outline, points: fitted.loop, nodes: fitted.nodes };
    }),
  }));
  return { shapes: made, nodes };
}
