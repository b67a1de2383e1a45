import type { Place } from '../../../stand-in/reader.ts';

/** Moves kept at most; more would fill the memory of a machine that runs for days. */
const MOST = 2_000_000;
const WIDTH = 9;

/** One move as it was really made: where the bit's tip went, machine coordinates, mm. */
export interface MadeMove {
  from: Place;
  to: Place;
  rapid: boolean;
  turning: boolean;
  /** Which fitting of a bit made it, counted from 1. */
  fitted: number;
}

/** The exact way of the bit since the stock was laid: what a comparison with the plan goes by, without any grid. */
export class MadeMoves {
  private rows = new Float64Array(WIDTH * 1024);
  private count = 0;
  private last = 0;
  /** More moves were made than are kept. */
  full = false;

  clear(): void {
    this.count = this.last = 0;
    this.full = false;
  }

  /** @param serial of the move of which this is a stretch; stretches of one move are one. */
  add(from: Place, to: Place, rapid: boolean, turning: boolean, fitted: number, serial: number): void {
    const flags = (rapid ? 1 : 0) + (turning ? 2 : 0);
    const before = (this.count - 1) * WIDTH;
    if (this.count > 0 && serial === this.last && this.rows[before + 6] === flags && this.rows[before + 7] === fitted) {
      this.rows.set([to.x, to.y, to.z], before + 3);
      return;
    }
    if (this.count >= MOST) {
      this.full = true;
      return;
    }
    if ((this.count + 1) * WIDTH > this.rows.length) {
      const more = new Float64Array(this.rows.length * 2);
      more.set(this.rows);
      this.rows = more;
    }
    this.rows.set([from.x, from.y, from.z, to.x, to.y, to.z, flags, fitted, serial], this.count * WIDTH);
    this.count++;
    this.last = serial;
  }

  get length(): number {
    return this.count;
  }

  move(index: number): MadeMove {
    const [ax, ay, az, bx, by, bz, flags, fitted] = this.rows.subarray(index * WIDTH, index * WIDTH + 8);
    return {
      from: { x: ax, y: ay, z: az },
      to: { x: bx, y: by, z: bz },
      rapid: (flags & 1) !== 0,
      turning: (flags & 2) !== 0,
      fitted,
    };
  }
}
