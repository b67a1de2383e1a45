import { MOST_CHANGES, MOST_MOVES, TooManyMoves } from './too-many-moves.ts';

/**
 * Where the tool goes: points in mm on the sheet (x right, y up from the stock's lower left corner, z up from the top of
 * the stock), and of the move that ends at each point what it is. The first point is where the path starts.
 *
 * A path is strokes, one after the other: the tool comes by rapid moves, begins, goes along, and leaves by rapid moves.
 */
export interface Path {
  xyz: Float64Array;
  /** mm/min; 0 of rapid moves, which go as fast as the axes do. */
  feed: Float64Array;
  /** 1 of rapid moves. */
  rapid: Uint8Array;
  /** How much of the tool's power is on along the move, 0 to 1: a turning bit's is 1 where it feeds. */
  power: Float32Array;
  /** Moves along which the power changes, by the point at which they end; their `power` is the most of it. */
  shades?: ReadonlyMap<number, Shade>;
}

/** How the power changes along one straight move at one feed: stretches one after the other. */
export interface Shade {
  /** Where each ends, mm from the move's start; the last at its end. */
  ends: Float64Array;
  /** How much is on along each, 0 to 1. */
  power: Float32Array;
}

/** A path along points at one feed, or all of rapid moves. @example pathAlong(Float64Array.of(0, 0, 5, 9, 0, 5)).rapid // [1, 1] */
export function pathAlong(xyz: Float64Array, feed?: number): Path {
  const n = xyz.length / 3;
  const rapid = feed === undefined;
  return {
    xyz,
    feed: new Float64Array(n).fill(feed ?? 0),
    rapid: new Uint8Array(n).fill(rapid ? 1 : 0),
    power: new Float32Array(n).fill(rapid ? 0 : 1),
  };
}

const tooMany = () =>
  new TooManyMoves(
    `This cut would have more than ${MOST_MOVES / 1e6} million moves; make its step or its depth per pass larger, or cut fewer outlines at once.`,
  );

const tooManyChanges = () =>
  new TooManyMoves(
    `This cut would change its power more than ${MOST_CHANGES / 1e6} million times; make the picture smaller, or burn fewer lines a millimetre.`,
  );

/** Collects the moves of a path, in arrays that grow: a page of lettering has millions. */
export class PathBuilder {
  private xyz = new Float64Array(3 * 1024);
  private feeds = new Float64Array(1024);
  private rapids = new Uint8Array(1024);
  private powers = new Float32Array(1024);
  private count = 0;
  private readonly shades = new Map<number, Shade>();
  /** Of power, in all of them. */
  private changes = 0;

  constructor(private readonly most = MOST_MOVES) {}

  get length(): number {
    return this.count;
  }

  get x(): number {
    return this.xyz[3 * this.count - 3];
  }
  get y(): number {
    return this.xyz[3 * this.count - 2];
  }
  get z(): number {
    return this.xyz[3 * this.count - 1];
  }

  /** Feeds to a point with the tool's power on; a move that goes nowhere is dropped. */
  to(x: number, y: number, z: number, feed: number, power = 1): void {
    this.add(x, y, z, feed, 0, power);
  }

  /** Goes to a point as fast as the axes do, the power off; a move that goes nowhere is dropped. */
  rapid(x: number, y: number, z: number): void {
    this.add(x, y, z, 0, 1, 0);
  }

  /** Feeds to a point with a power that changes along the way; see `Shade`. */
  shaded(x: number, y: number, z: number, feed: number, shade: Shade): void {
    const before = this.count;
    this.add(
      x,
      y,
      z,
      feed,
      0,
      shade.power.reduce((most, power) => Math.max(most, power), 0),
    );
    if (this.count === before) return;
    if ((this.changes += shade.power.length) > MOST_CHANGES) throw tooManyChanges();
    this.shades.set(before, shade);
  }

  private add(x: number, y: number, z: number, feed: number, rapid: number, power: number): void {
    const n = 3 * this.count;
    if (n > 0 && this.xyz[n - 3] === x && this.xyz[n - 2] === y && this.xyz[n - 1] === z) return;
    if (this.count === this.feeds.length) {
      if (this.count >= this.most) throw tooMany();
      const more = new Float64Array(2 * this.xyz.length);
      more.set(this.xyz);
      this.xyz = more;
      const feeds = new Float64Array(2 * this.feeds.length);
      feeds.set(this.feeds);
      this.feeds = feeds;
      const rapids = new Uint8Array(feeds.length);
      rapids.set(this.rapids);
      this.rapids = rapids;
      const powers = new Float32Array(feeds.length);
      powers.set(this.powers);
      this.powers = powers;
    }
    this.xyz[n] = x;
    this.xyz[n + 1] = y;
    this.xyz[n + 2] = z;
    this.rapids[this.count] = rapid;
    this.powers[this.count] = power;
    this.feeds[this.count++] = feed;
  }

  done(): Path {
    return {
      xyz: this.xyz.slice(0, 3 * this.count),
      feed: this.feeds.slice(0, this.count),
      rapid: this.rapids.slice(0, this.count),
      power: this.powers.slice(0, this.count),
      ...(this.shades.size > 0 ? { shades: this.shades } : {}),
    };
  }
}

/** Length cut and length of all other moves, the lowest z it cuts at, mm, and how often the tool lifts between cutting. */
export function measurePath({ xyz, power, shades }: Path): {
  cut: number;
  link: number;
  lowest: number;
  lifts: number;
} {
  let cut = 0;
  let link = 0;
  let lowest = 0;
  let lifts = -1;
  for (let i = 0; i < power.length; i++) {
    if (power[i] > 0) lowest = Math.min(lowest, xyz[3 * i + 2]);
    if (i === 0) continue;
    const dx = xyz[3 * i] - xyz[3 * i - 3];
    const dy = xyz[3 * i + 1] - xyz[3 * i - 2];
    const dz = xyz[3 * i + 2] - xyz[3 * i - 1];
    // Several times as quick as Math.hypot, whose care for huge numbers is not needed here.
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
    if (power[i] > 0 && power[i - 1] === 0) lifts++;
    const on = power[i] > 0 ? (shades?.has(i) ? burntAlong(shades.get(i)!) : length) : 0;
    cut += on;
    link += length - on;
  }
  return { cut, link, lowest, lifts: Math.max(0, lifts) };
}

/** How much of a move with changing power has any on, mm. */
function burntAlong({ ends, power }: Shade): number {
  let sum = 0;
  for (let k = 0; k < ends.length; k++) if (power[k] > 0) sum += ends[k] - (k > 0 ? ends[k - 1] : 0);
  return sum;
}

/** How many moves a path is in a program: each stretch of one power counts. */
export function movesOf({ feed, shades }: Path): number {
  let moves = Math.max(0, feed.length - 1);
  for (const { ends } of shades?.values() ?? []) moves += ends.length - 1;
  return moves;
}

/** Paths one after the other, as one. */
export function joinPaths(paths: readonly Path[]): Path {
  const n = paths.reduce((sum, p) => sum + p.feed.length, 0);
  const joined = pathAlong(new Float64Array(3 * n));
  const shades = new Map<number, Shade>();
  let at = 0;
  for (const path of paths) {
    for (const [point, shade] of path.shades ?? []) shades.set(at + point, shade);
    joined.xyz.set(path.xyz, 3 * at);
    joined.feed.set(path.feed, at);
    joined.rapid.set(path.rapid, at);
    joined.power.set(path.power, at);
    at += path.feed.length;
  }
  return shades.size > 0 ? { ...joined, shades } : joined;
}
