import type { Place } from './reader.ts';

/** A straight move as the axes take it. */
export interface LedMove {
  to: Place;
  /** mm/min, 0 for a rapid one. */
  feed: number;
  line: number;
  power: number;
}

/** A stretch beside a straight one that was told. */
interface Stretch extends LedMove {
  /** Where it begins, beside the way. */
  from: Place;
  /** The way's direction. */
  ux: number;
  uy: number;
  /** Where the way's own stretch ends. */
  x: number;
  y: number;
  /** It begins on the way itself, and swings out. */
  swings: boolean;
  /** How far the way turns before it, radians, to the left. */
  turned: number;
  /** Round the corner before it. */
  round: Place[];
}

/** Stretches that may still be cut short by what comes; more are not looked ahead over. */
const AHEAD = 60;
/** How far a stretch goes the way it was told to, mm; less than nothing where it would go back. */
const forward = ({ from, to, ux, uy }: Stretch): number => (to.x - from.x) * ux + (to.y - from.y) * uy;

/** Chords of a corner gone round stay this close to its arc, mm. */
const CHORD = 0.001;

/**
 * Leads a tool beside the way it is told, as a controller does between G41 or G42 and G40: swinging out on the first move,
 * round outer corners, and straight on to where inner ones meet. Straight moves in the plane of X and Y; what arcs there are
 * come as their chords.
 */
export class LedBeside {
  /** To the left of the way, mm; 0 where it goes along it. */
  private off = 0;
  private readonly ahead: Stretch[] = [];
  private at: Place = { x: 0, y: 0, z: 0 };
  /** Where the last stretch that was given out ends, beside the way. */
  private out: Place = this.at;
  private begun = false;
  /** The direction of the move before. */
  private ux = 0;
  private uy = 0;

  get on(): boolean {
    return this.off !== 0;
  }

  /** The line of the first move that is kept back. */
  get keptBack(): number | undefined {
    return this.ahead[0]?.line;
  }

  /** From here on beside the way. @param off mm, to the left. */
  lead(off: number, at: Place): void {
    this.off = off;
    this.at = this.out = at;
    this.begun = false;
  }

  forget(): void {
    this.off = 0;
    this.ahead.length = 0;
  }

  /**
   * Takes a move and gives out those that are sure.
   * @throws {RangeError} where the tool does not fit into a corner.
   */
  take(move: LedMove): LedMove[] {
    if (!this.on) return [move];
    const { to } = move;
    const [dx, dy] = [to.x - this.at.x, to.y - this.at.y];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) {
      const given = this.rest();
      this.at = to;
      this.out = { ...this.out, z: to.z };
      return [...given, { ...move, to: this.out }];
    }
    const [ux, uy] = [dx / length, dy / length];
    const [nx, ny] = [-uy * this.off, ux * this.off];
    const next: Stretch = {
      ...move,
      from: { x: this.at.x + nx, y: this.at.y + ny, z: this.at.z },
      to: { x: to.x + nx, y: to.y + ny, z: to.z },
      ux,
      uy,
      x: to.x,
      y: to.y,
      swings: !this.begun,
      turned: this.begun ? Math.atan2(this.ux * uy - this.uy * ux, this.ux * ux + this.uy * uy) : 0,
      round: [],
    };
    [this.ux, this.uy] = [ux, uy];
    if (!this.begun) next.from = this.out;
    this.begun = true;
    this.at = to;
    this.join(next);
    return this.ahead.length > AHEAD ? this.given(this.ahead.shift()!) : [];
  }

  /** What was kept back, to the end of the way. */
  rest(): LedMove[] {
    const last = this.ahead.at(-1);
    // What an inner corner has cut away altogether is not gone back along.
    if (last && forward(last) < 0) last.to = { ...last.from, z: last.to.z };
    return this.ahead.splice(0).flatMap((stretch) => this.given(stretch));
  }

  private join(next: Stretch): void {
    const { ahead } = this;
    for (let cut = false; ; cut = true) {
      const last = ahead.at(-1);
      if (!last) {
        // What came before is made: it is gone on from where that ended.
        if (!next.swings) next.from = this.out;
        ahead.push(next);
        return;
      }
      const cross = last.ux * next.uy - last.uy * next.ux;
      const dot = last.ux * next.ux + last.uy * next.uy;
      const straight = Math.abs(cross) < 1e-9 && dot > 0;
      if (!cut && !straight && cross * this.off <= 0 && forward(last) >= -1e-9) {
        next.round = this.corner(last, next);
        ahead.push(next);
        return;
      }
      // Where the two ways beside meet, from the end of the last and the beginning of the next.
      const [gx, gy] = [next.from.x - last.to.x, next.from.y - last.to.y];
      const t = Math.abs(cross) < 1e-9 ? 0 : (gx * next.uy - gy * next.ux) / cross;
      const meet = { x: last.to.x + last.ux * t, y: last.to.y + last.uy * t, z: last.to.z };
      const along = (meet.x - last.from.x) * last.ux + (meet.y - last.from.y) * last.uy;
      if (along >= -1e-9) {
        last.to = meet;
        next.from = meet;
        ahead.push(next);
        return;
      }
      // The last is cut away altogether: what comes before it meets the next.
      ahead.pop();
      next.turned += last.turned;
      if (ahead.length === 0 || Math.abs(next.turned) >= Math.PI)
        throw new RangeError('the kerf does not fit into a corner');
    }
  }

  /** Points round an outer corner, from beside the last stretch to beside the next, without the ends. */
  private corner(last: Stretch, next: Stretch): Place[] {
    const { x, y, to } = last;
    const r = Math.abs(this.off);
    const begin = Math.atan2(to.y - y, to.x - x);
    let turn = Math.atan2(next.from.y - y, next.from.x - x) - begin;
    const way = this.off > 0 ? -1 : 1;
    while (turn * way < -1e-12) turn += way * 2 * Math.PI;
    const n = Math.max(1, Math.ceil(Math.abs(turn) / (2 * Math.acos(Math.max(0.5, 1 - CHORD / r)))));
    return Array.from({ length: n }, (_, k) => {
      const angle = begin + (turn * (k + 1)) / n;
      return { x: x + r * Math.cos(angle), y: y + r * Math.sin(angle), z: to.z };
    });
  }

  private given({ round, to, feed, line, power }: Stretch): LedMove[] {
    this.out = to;
    return [...round, to].map((place) => ({ to: place, feed, line, power }));
  }
}
