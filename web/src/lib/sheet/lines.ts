import type { Raster } from '@kerbe/core/artwork/greys/raster';

/** Lines of the sheet, mm, in flat lists: cheap to send from a thread, to keep and to draw. */
export interface Lines {
  /** x, y of all points. */
  points: Float32Array;
  /** Number of each line’s first point, and of the end. */
  starts: Uint32Array;
  /** 1 of a line that ends where it begins. */
  closed: Uint8Array;
  /** Least x, least y, most x, most y of each line. */
  boxes: Float32Array;
  /** A picture that lies there. */
  raster?: Raster;
}

/** Collects lines. */
export class LinesBuilder {
  private points = new Float32Array(256);
  private length = 0;
  private readonly starts: number[] = [0];
  private readonly closed: number[] = [];
  private readonly boxes: number[] = [];

  get count(): number {
    return this.closed.length;
  }

  point(x: number, y: number): void {
    if (this.length + 2 > this.points.length) {
      const larger = new Float32Array(2 * this.points.length);
      larger.set(this.points);
      this.points = larger;
    }
    this.points[this.length++] = x;
    this.points[this.length++] = y;
  }

  /** Ends the line of the points since the last one ended; none of them is no line. */
  end(closed = false): void {
    const from = this.starts[this.starts.length - 1];
    const to = this.length / 2;
    if (from === to) return;
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++) {
      const [x, y] = [this.points[2 * i], this.points[2 * i + 1]];
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
    this.boxes.push(minX, minY, maxX, maxY);
    this.starts.push(to);
    this.closed.push(closed ? 1 : 0);
  }

  line(points: ArrayLike<number>, closed: boolean): void {
    for (let i = 0; i < points.length; i += 2) this.point(points[i], points[i + 1]);
    this.end(closed);
  }

  circle(x: number, y: number, radius: number): void {
    const sides = 48;
    for (let i = 0; i < sides; i++) {
      const angle = (2 * Math.PI * i) / sides;
      this.point(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
    }
    this.end(true);
  }

  done(): Lines {
    return {
      points: this.points.slice(0, this.length),
      starts: Uint32Array.from(this.starts),
      closed: Uint8Array.from(this.closed),
      boxes: Float32Array.from(this.boxes),
    };
  }
}

/** A part of some lines: those with numbers from `from` up to `to`. */
export interface Range {
  from: number;
  to: number;
}

/** What of the sheet is looked at, mm. */
export interface Window {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/**
 * Adds lines to a path. What lies beyond the window is left out, and so are points nearer than `finest` to the one before:
 * from afar a drawing of many points is one of few.
 */
export function trace(path: CanvasPath, lines: Lines, { from, to }: Range, finest: number, window: Window): void {
  const { points, starts, closed, boxes } = lines;
  const least = finest * finest;
  for (let line = from; line < to; line++) {
    const box = 4 * line;
    if (boxes[box] > window.maxX || boxes[box + 2] < window.minX || boxes[box + 1] > window.maxY || boxes[box + 3] < window.minY) continue; // prettier-ignore
    const end = 2 * starts[line + 1];
    let i = 2 * starts[line];
    let [x, y] = [points[i], points[i + 1]];
    path.moveTo(x, y);
    for (i += 2; i < end; i += 2) {
      const [px, py] = [points[i], points[i + 1]];
      if ((px - x) * (px - x) + (py - y) * (py - y) < least && i + 2 < end) continue;
      path.lineTo(px, py);
      x = px;
      y = py;
    }
    if (closed[line]) path.closePath();
  }
}

/** Buffers of some lines, to be handed over and not copied. */
export const buffersOf = ({ points, starts, closed, boxes }: Lines): ArrayBuffer[] =>
  [points, starts, closed, boxes].map(({ buffer }) => buffer as ArrayBuffer);
