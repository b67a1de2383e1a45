import type { Point } from '../../../stand-in/axes.ts';
import { Marks, type Sprung } from './marks.ts';

/** A bit as it stands in the simulated spindle. */
export interface FittedBit {
  name: string;
  diameter: number;
  /** Half of the included angle, radians; undefined for an end mill. */
  halfAngle?: number;
  tipDiameter: number;
  /** From the spindle's nose to the tip, mm. */
  length: number;
  /** A point that gives when it is pressed, and draws; it is broken by turning, and by being pressed too far. */
  spring?: Sprung & { force: number; broken: boolean };
}

/** Grid of the carved piece, mm. */
const CELL = 0.5;

/** A piece of stock on the simulated table, with the height field that bits have carved into it. */
export class Workpiece {
  readonly columns: number;
  readonly rows: number;
  readonly cell = CELL;
  /** Height of every cell over the spoilboard, mm; below 0 the spoilboard itself is cut. */
  readonly heights: Float32Array;
  /** Lines that points have drawn on it. */
  readonly marks = new Marks();

  /**
   * @param corner machine coordinates of its lower left corner.
   * @param thickness at the lower left, lower right, upper right and upper left corner, mm.
   */
  constructor(
    readonly corner: { x: number; y: number },
    readonly length: number,
    readonly width: number,
    readonly thickness: readonly [number, number, number, number],
  ) {
    this.columns = Math.ceil(length / CELL);
    this.rows = Math.ceil(width / CELL);
    this.heights = new Float32Array(this.columns * this.rows);
    for (let r = 0; r < this.rows; r++)
      for (let c = 0; c < this.columns; c++)
        this.heights[r * this.columns + c] = this.surface((c + 0.5) * CELL, (r + 0.5) * CELL);
  }

  /** Thickness of the uncut stock at a place counted from its corner. */
  surface(x: number, y: number): number {
    const u = Math.min(1, Math.max(0, x / this.length));
    const v = Math.min(1, Math.max(0, y / this.width));
    const [ll, lr, ur, ul] = this.thickness;
    return (ll * (1 - u) + lr * u) * (1 - v) + (ul * (1 - u) + ur * u) * v;
  }

  /** Height of what is left of it at a place counted from its corner; nothing beside it. */
  top(x: number, y: number): number | undefined {
    if (x < 0 || y < 0 || x > this.length || y > this.width) return undefined;
    const c = Math.min(this.columns - 1, Math.floor(x / CELL));
    const r = Math.min(this.rows - 1, Math.floor(y / CELL));
    // Untouched stock is known exactly; what was carved, by its cell.
    const cell = this.heights[r * this.columns + c];
    const whole = this.surface((c + 0.5) * CELL, (r + 0.5) * CELL);
    return cell < whole - 1e-4 ? cell : this.surface(x, y);
  }

  /** How deep a bit stands in the material with any part of it, mm; 0 where it is free. Counted from the corner. */
  over(bit: FittedBit, x: number, y: number, z: number): number {
    if (z >= Math.max(...this.thickness)) return 0;
    const flat = bit.halfAngle === undefined ? bit.diameter / 2 : bit.tipDiameter / 2;
    const rise = bit.halfAngle === undefined ? 0 : 1 / Math.tan(bit.halfAngle);
    const reach = bit.diameter / 2;
    let most = 0;
    const c1 = Math.min(this.columns - 1, Math.floor((x + reach) / CELL));
    const r1 = Math.min(this.rows - 1, Math.floor((y + reach) / CELL));
    for (let r = Math.max(0, Math.floor((y - reach) / CELL)); r <= r1; r++)
      for (let c = Math.max(0, Math.floor((x - reach) / CELL)); c <= c1; c++) {
        const d = Math.hypot((c + 0.5) * CELL - x, (r + 0.5) * CELL - y);
        if (d > reach) continue;
        most = Math.max(most, this.heights[r * this.columns + c] - z - Math.max(0, d - flat) * rise);
      }
    return most;
  }

  /** Whether a place in machine coordinates is on the piece or within `room` of it. */
  near(x: number, y: number, room: number): boolean {
    const dx = Math.max(this.corner.x - x, 0, x - this.corner.x - this.length);
    const dy = Math.max(this.corner.y - y, 0, y - this.corner.y - this.width);
    return Math.hypot(dx, dy) <= room;
  }

  /** Takes away what a bit sweeps on a straight move; points are tips, counted from the corner and the spoilboard. */
  cut(bit: FittedBit, from: Point, to: Point): void {
    const length = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z);
    const steps = Math.max(1, Math.ceil(length / (CELL / 2)));
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      this.stamp(bit, from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t, from.z + (to.z - from.z) * t);
    }
  }

  private stamp(bit: FittedBit, x: number, y: number, z: number): void {
    const highest = Math.max(...this.thickness);
    if (z >= highest) return;
    const flat = bit.halfAngle === undefined ? bit.diameter / 2 : bit.tipDiameter / 2;
    const rise = bit.halfAngle === undefined ? 0 : 1 / Math.tan(bit.halfAngle);
    const reach =
      bit.halfAngle === undefined ? flat : Math.min(bit.diameter / 2, flat + (highest - z) * Math.tan(bit.halfAngle));
    const c0 = Math.max(0, Math.floor((x - reach) / CELL));
    const c1 = Math.min(this.columns - 1, Math.floor((x + reach) / CELL));
    const r0 = Math.max(0, Math.floor((y - reach) / CELL));
    const r1 = Math.min(this.rows - 1, Math.floor((y + reach) / CELL));
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++) {
        const d = Math.hypot((c + 0.5) * CELL - x, (r + 0.5) * CELL - y);
        if (d > reach) continue;
        const h = z + Math.max(0, d - flat) * rise;
        const k = r * this.columns + c;
        if (h < this.heights[k]) this.heights[k] = h;
      }
  }
}
