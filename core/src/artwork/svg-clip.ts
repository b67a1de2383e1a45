import type { Clipper, Loops } from '../geometry/clipper.ts';
import { type Bounds, boundsOf, lengthOf, type Outline, signedArea } from '../geometry/outline.ts';
import { ArtworkError } from './artwork-error.ts';
import type { Shape } from './shape.ts';

/** What is shown through: loops in mm, as `union` returns them. */
export interface Window {
  loops: Loops;
  bounds?: Bounds;
}

/** What of a shape is cut off by a window may be this small, mm², and is nothing. */
const NOTHING = 1e-4;

/** What of a line is cut off may be this short, mm. */
const SHORTEST = 1e-3;

/** Points that are held against windows in one drawing, at most. */
const MOST_POINTS = 20_000_000;

/** Shows shapes through windows, and counts the work before it is done. */
export class Clipping {
  private points = 0;

  constructor(private readonly clipper: Clipper) {}

  window(loops: Loops): Window {
    return { loops, bounds: boundsOf(loops.map((points) => ({ points }))) };
  }

  /** What is shown through both. */
  both(a: Window, b: Window): Window {
    this.spend(a.loops, b.loops);
    return this.window(this.clipper.intersection(a.loops, b.loops));
  }

  all(parts: readonly { loops: Loops; rule: Shape['rule'] }[]): Window {
    this.spend(...parts.map(({ loops }) => loops));
    const united = parts.flatMap(({ loops, rule }) => this.clipper.union(loops, rule));
    return this.window(parts.length > 1 ? this.clipper.union(united, 'nonzero') : united);
  }

  /**
   * What of a shape is shown: the shape itself where that is all of it, undefined where nothing is.
   *
   * @param filled whether its area is drawn; otherwise only its lines are.
   */
  shown<S extends Shape>(shape: S, filled: boolean, { loops, bounds }: Window): S | undefined {
    const own = boundsOf(shape.outlines);
    if (!own) return shape;
    if (!bounds || own.maxX < bounds.minX || own.minX > bounds.maxX || own.maxY < bounds.minY || own.minY > bounds.maxY)
      return undefined;
    if (isBox(loops) && own.minX >= bounds.minX && own.maxX <= bounds.maxX && own.minY >= bounds.minY && own.maxY <= bounds.maxY)
      return shape; // prettier-ignore
    this.spend(shape.outlines.map(({ points }) => points), loops); // prettier-ignore
    const asArea = (outline: Outline) => filled && outline.closed;
    const area = this.clipper.union(
      shape.outlines.filter(asArea).map(({ points }) => points),
      shape.rule,
    );
    const lines = shape.outlines.filter((outline) => !asArea(outline));
    const off = area.length ? this.clipper.difference(area, loops) : [];
    const whole = off.reduce((sum, loop) => sum + signedArea(loop), 0) < NOTHING;
    const kept: Outline[] = whole
      ? shape.outlines.filter(asArea)
      : this.clipper.intersection(area, loops).map((points) => ({ points, closed: true, nodes: points.length / 2 }));
    let same = whole;
    for (const line of lines) {
      const parts = this.clipper.within(asLine(line), loops);
      const shown = parts.reduce((sum, points) => sum + lengthOf({ points, closed: false }), 0);
      if (lengthOf(line) - shown < SHORTEST) kept.push(line);
      else {
        same = false;
        kept.push(...parts.map((points) => ({ points, closed: false, nodes: points.length / 2 - 1 })));
      }
    }
    if (same) return shape;
    return kept.length ? { ...shape, rule: whole ? shape.rule : 'nonzero', outlines: kept } : undefined;
  }

  private spend(...all: Loops[]): void {
    for (const loops of all) for (const loop of loops) this.points += loop.length / 2;
    if (this.points > MOST_POINTS)
      throw new ArtworkError(
        'The drawing’s clip paths would take too long to follow; cut its shapes where it was drawn, and import it again.',
      );
  }
}

/** The points of an outline from its beginning to its end; a closed one ends where it began. */
function asLine({ points, closed }: Outline): Float64Array {
  if (!closed) return points;
  const line = new Float64Array(points.length + 2);
  line.set(points);
  line.set(points.subarray(0, 2), points.length);
  return line;
}

/** Whether loops are one rectangle along the axes. */
function isBox(loops: Loops): boolean {
  if (loops.length !== 1 || loops[0].length !== 8) return false;
  const p = loops[0];
  return [0, 2, 4, 6].every((i) => {
    const j = (i + 2) % 8;
    return p[i] === p[j] || p[i + 1] === p[j + 1];
  });
}
