import type { Point } from '../../../stand-in/axes.ts';

/** A line that a point drew on the stock, from its corner, mm. */
export interface DrawnLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  width: number;
}

/** Places along a stretch at which the stock under a point is looked at, mm apart. */
const LOOK_EVERY = 0.05;

/** Lines kept at most; more would fill the memory of a machine that runs for days. */
const MOST = 500_000;

/** A spring-loaded point, as the machine feels it. */
export interface Sprung {
  travel: number;
  width: number;
}

/** What points have drawn on a piece since it was laid. */
export class Marks {
  readonly lines: DrawnLine[] = [];
  /** Length of all of them, mm. */
  length = 0;

  /**
   * Draws a point over the stock: a line wherever it is pressed, a gap where the stock lies lower than its tip.
   *
   * @param surface height of the stock over the spoilboard; points are tips, counted from the corner and the spoilboard.
   * @returns where it was pressed further than its spring gives, as a share of the way; nothing where it never was.
   */
  draw(
    point: Sprung,
    from: Point,
    to: Point,
    surface: (x: number, y: number) => number | undefined,
  ): number | undefined {
    const length = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z);
    const steps = Math.max(1, Math.ceil(length / LOOK_EVERY));
    const at = (t: number) => ({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t });
    let began: number | undefined;
    const end = (t: number) => {
      if (began === undefined) return;
      const [a, b] = [at(began), at(t)];
      began = undefined;
      if (this.lines.length >= MOST || (a.x === b.x && a.y === b.y)) return;
      this.lines.push({ x0: a.x, y0: a.y, x1: b.x, y1: b.y, width: point.width });
      this.length += Math.hypot(b.x - a.x, b.y - a.y);
    };
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      const { x, y } = at(t);
      const under = surface(x, y);
      const pressed = under === undefined ? 0 : under - (from.z + (to.z - from.z) * t);
      if (pressed > point.travel + SLACK) {
        end(t);
        return t;
      }
      if (pressed > 0) began ??= t;
      else end(t);
    }
    end(1);
    return undefined;
  }
}

/** Rounding of a program's numbers breaks no point, mm. */
const SLACK = 0.002;
