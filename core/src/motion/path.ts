import { MOST_MOVES, TooManyMoves } from './too-many-moves.ts';

/**
 * Where the bit goes: points in mm on the sheet (x right, y up from the stock's lower left corner, z up from the top of
 * the stock), and for each point the feed of the move that ends there, mm/min; 0 is a rapid move. The first point is
 * where the path starts.
 */
export interface Path {
  xyz: Float64Array;
  feed: Float64Array;
}

const tooMany = () =>
  new TooManyMoves(
    `This cut would have more than ${MOST_MOVES / 1e6} million moves; make its step or its depth per pass larger, or cut fewer outlines at once.`,
  );

/** Collects the moves of a path, in arrays that grow: a page of lettering has millions. */
export class PathBuilder {
  private xyz = new Float64Array(3 * 1024);
  private feeds = new Float64Array(1024);
  private count = 0;

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

  /** Goes to a point; a move that goes nowhere is dropped. */
  to(x: number, y: number, z: number, feed: number): void {
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
    }
    this.xyz[n] = x;
    this.xyz[n + 1] = y;
    this.xyz[n + 2] = z;
    this.feeds[this.count++] = feed;
  }

  done(): Path {
    return { xyz: this.xyz.slice(0, 3 * this.count), feed: this.feeds.slice(0, this.count) };
  }
}

/** Length cut and length of rapid moves, the lowest z, mm, and how often the bit lifts between cutting. */
export function measurePath({ xyz, feed }: Path): { cut: number; link: number; lowest: number; lifts: number } {
  let cut = 0;
  let link = 0;
  let lowest = 0;
  let lifts = -1;
  for (let i = 0; i < feed.length; i++) {
    lowest = Math.min(lowest, xyz[3 * i + 2]);
    if (i === 0) continue;
    const dx = xyz[3 * i] - xyz[3 * i - 3];
    const dy = xyz[3 * i + 1] - xyz[3 * i - 2];
    const dz = xyz[3 * i + 2] - xyz[3 * i - 1];
    // Several times as quick as Math.hypot, whose care for huge numbers is not needed here.
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
    if (feed[i] > 0 && feed[i - 1] === 0) lifts++;
    if (feed[i] > 0) cut += length;
    else link += length;
  }
  return { cut, link, lowest, lifts: Math.max(0, lifts) };
}

/** Paths one after the other, as one. */
export function joinPaths(paths: readonly Path[]): Path {
  const n = paths.reduce((sum, p) => sum + p.feed.length, 0);
  const joined: Path = { xyz: new Float64Array(3 * n), feed: new Float64Array(n) };
  let at = 0;
  for (const path of paths) {
    joined.xyz.set(path.xyz, 3 * at);
    joined.feed.set(path.feed, at);
    at += path.feed.length;
  }
  return joined;
}
