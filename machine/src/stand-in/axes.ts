import type { Place as Point } from './reader.ts';

export type { Point };

/** What the simulated axes can do: mm/s and mm/s². */
export interface AxisLimits {
  speed: Point;
  acceleration: Point;
  cornerStep: number;
}

interface Move {
  from: Point;
  to: Point;
  unit: Point;
  length: number;
  /** Asked speed, mm/s; Infinity for a rapid move. */
  asked: number;
  acceleration: number;
  /** Square of the speed at which the move may begin, by the corner and by what follows. */
  entry2: number;
  corner2: number;
  line: number;
  /** What is on along it, as the program says it. */
  power: number;
  /** Counts the moves since the machine was switched on. */
  serial: number;
}

/** Moves that the axes look ahead. */
const LOOK_AHEAD = 512;

/**
 * Simulated axes: they take straight moves, look ahead over them, and are stepped along in time exactly (constant
 * acceleration phases, solved in closed form). Written apart from the planner in the core, so that each checks the
 * other.
 */
export class Axes {
  position: Point = { x: 0, y: 0, z: 0 };
  /** Speed along the current move, mm/s. */
  speed = 0;
  /** Share of the asked feed, 1 = 100 %. */
  override = 1;
  holding = false;
  private readonly moves: Move[] = [];
  private head = 0;
  private travelled = 0;
  private planned = true;
  private serial = 0;

  constructor(private readonly limits: AxisLimits) {}

  get queued(): number {
    return this.moves.length - this.head;
  }

  get wantsMore(): boolean {
    return this.queued < LOOK_AHEAD;
  }

  /** Line of the move being made, or 0. */
  get line(): number {
    return this.moves[this.head]?.line ?? 0;
  }

  /** Where the last queued move ends. */
  get target(): Point {
    return this.moves.length > this.head ? this.moves[this.moves.length - 1].to : this.position;
  }

  /** Of the move being made: what is on along it, and how fast it is asked for, mm/s. */
  get power(): number {
    return this.moves[this.head]?.power ?? 0;
  }
  get askedSpeed(): number {
    const move = this.moves[this.head];
    return move ? this.top(move) : 0;
  }

  /** Adds a straight move; `feed` in mm/min, 0 for rapid. */
  add(to: Point, feed: number, line: number, power = 0): void {
    const from = this.target;
    const d = { x: to.x - from.x, y: to.y - from.y, z: to.z - from.z };
    const length = Math.hypot(d.x, d.y, d.z);
    if (length < 1e-9) return;
    const unit = { x: d.x / length, y: d.y / length, z: d.z / length };
    const { acceleration: a } = this.limits;
    const previous = this.moves[this.moves.length - 1];
    let corner2 = 0;
    if (previous && this.queued > 0) {
      const jump = Math.max(
        Math.abs(unit.x - previous.unit.x),
        Math.abs(unit.y - previous.unit.y),
        Math.abs(unit.z - previous.unit.z),
      );
      const v = jump > 0 ? this.limits.cornerStep / jump : Infinity;
      corner2 = v * v;
    }
    this.moves.push({
      from,
      to,
      unit,
      length,
      asked: feed > 0 ? feed / 60 : Infinity,
      acceleration: Math.min(a.x / Math.abs(unit.x), a.y / Math.abs(unit.y), a.z / Math.abs(unit.z)),
      entry2: 0,
      corner2,
      line,
      power,
      serial: ++this.serial,
    });
    this.planned = false;
  }

  /** Forgets every queued move; the axes stand still where they are. */
  drop(): void {
    this.moves.length = 0;
    this.head = 0;
    this.travelled = 0;
    this.speed = 0;
    this.planned = true;
  }

  /** What is queued belongs to no line any more. */
  unnumber(): void {
    for (const move of this.moves) move.line = 0;
  }

  replan(): void {
    this.planned = false;
  }

  private top(move: Move): number {
    const { speed: s } = this.limits;
    const most = Math.min(s.x / Math.abs(move.unit.x), s.y / Math.abs(move.unit.y), s.z / Math.abs(move.unit.z));
    return move.asked === Infinity ? most : Math.min(most, move.asked * this.override);
  }

  /** Backward over the queue: no move may begin faster than lets all that follow be slowed down for. */
  private plan(): void {
    let allowed2 = 0;
    for (let i = this.moves.length - 1; i > this.head; i--) {
      const move = this.moves[i];
      const before = this.moves[i - 1];
      const t = Math.min(this.top(move), this.top(before));
      move.entry2 = Math.min(move.corner2, t * t, allowed2 + 2 * move.acceleration * move.length);
      allowed2 = move.entry2;
    }
    this.planned = true;
  }

  /**
   * Moves on for at most `seconds`.
   * @param travelled told every straight stretch, for carving and for contacts; a place it returns stops the axes there.
   * @returns the seconds not used because nothing was left to do, or because the axes were held or stopped.
   */
  advance(
    seconds: number,
    travelled: (from: Point, to: Point, rapid: boolean, serial: number, power: number) => Point | undefined,
  ): number {
    let left = seconds;
    while (left > 1e-12) {
      if (!this.planned) this.plan();
      const move = this.moves[this.head];
      if (!move) {
        this.compact();
        return left;
      }
      const next = this.moves[this.head + 1];
      const exit = next ? Math.sqrt(next.entry2) : 0;
      const step = this.holding
        ? slow(this.speed, move.length - this.travelled, move.acceleration, left)
        : travel(this.speed, move.length - this.travelled, exit, this.top(move), move.acceleration, left);
      if (this.holding && this.speed === 0) return left;
      const from = this.position;
      this.travelled += step.distance;
      this.speed = step.speed;
      left -= step.used;
      const finished = this.travelled >= move.length - 1e-9;
      const s = this.travelled;
      const to = finished
        ? move.to
        : { x: move.from.x + move.unit.x * s, y: move.from.y + move.unit.y * s, z: move.from.z + move.unit.z * s };
      const stop = travelled(from, to, move.asked === Infinity, move.serial, move.power);
      if (stop) {
        this.position = stop;
        this.drop();
        return left;
      }
      this.position = to;
      if (finished) {
        this.head++;
        this.travelled = 0;
        if (!this.moves[this.head]) this.speed = 0;
        if (this.head > 2048) this.compact();
      }
    }
    return 0;
  }

  private compact(): void {
    this.moves.splice(0, this.head);
    this.head = 0;
  }
}

interface Step {
  distance: number;
  speed: number;
  used: number;
}

/** From speed `v` over `length` to at most `exit`, no faster than `top`, for at most `time`. */
function travel(v: number, length: number, exit: number, top: number, a: number, time: number): Step {
  exit = Math.min(exit, top);
  const peak = Math.max(Math.min(top, Math.sqrt(Math.max(0, (v * v + exit * exit) / 2 + a * length))), 0);
  const phases: [acceleration: number, seconds: number][] = [];
  if (v > top) {
    phases.push([-a, (v - top) / a]);
    const rest = length - (v * v - top * top) / (2 * a) - (top * top - exit * exit) / (2 * a);
    if (top > 0) phases.push([0, Math.max(0, rest / top)], [-a, (top - exit) / a]);
  } else if (exit * exit - v * v >= 2 * a * length) {
    phases.push([a, (Math.sqrt(v * v + 2 * a * length) - v) / a]);
  } else {
    const up = Math.max(0, (peak * peak - v * v) / (2 * a));
    const down = Math.max(0, (peak * peak - exit * exit) / (2 * a));
    phases.push([a, Math.max(0, peak - v) / a]);
    if (peak > 0) phases.push([0, Math.max(0, length - up - down) / peak]);
    phases.push([-a, Math.max(0, peak - exit) / a]);
  }
  return follow(v, length, phases, time);
}

/** Slows down to a stand for at most `time`, within one move. */
function slow(v: number, length: number, a: number, time: number): Step {
  if (v <= 0) return { distance: 0, speed: 0, used: 0 };
  const stop = (v * v) / (2 * a);
  const seconds = stop <= length ? v / a : (v - Math.sqrt(v * v - 2 * a * length)) / a;
  return follow(v, length, [[-a, seconds]], time);
}

function follow(v: number, length: number, phases: [number, number][], time: number): Step {
  let distance = 0;
  let used = 0;
  for (const [a, seconds] of phases) {
    const t = Math.min(seconds, time - used);
    distance += v * t + (a * t * t) / 2;
    v = Math.max(0, v + a * t);
    used += t;
    if (t < seconds) return { distance: Math.min(distance, length), speed: v, used };
  }
  // All phases done: rounding must not leave a crumb of the move.
  const crumb = length - distance;
  return {
    distance: Math.abs(crumb) < 1e-6 ? length : distance,
    speed: v < 1e-9 ? 0 : v,
    used: used + (used === 0 ? 1e-12 : 0),
  };
}
