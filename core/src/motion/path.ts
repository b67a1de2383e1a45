/**
 * Where the bit goes: points in mm on the sheet (x right, y up from the stock's lower left corner, z up from the top of
 * the stock), and for each point the feed of the move that ends there, mm/min; 0 is a rapid move. The first point is
 * where the path starts.
 */
export interface Path {
  xyz: Float64Array;
  feed: Float64Array;
}

/** Collects the moves of a path. */
export class PathBuilder {
  private readonly xyz: number[] = [];
  private readonly feeds: number[] = [];

  get length(): number {
    return this.feeds.length;
  }

  get x(): number {
    return this.xyz[this.xyz.length - 3];
  }
  get y(): number {
    return this.xyz[this.xyz.length - 2];
  }
  get z(): number {
    return this.xyz[this.xyz.length - 1];
  }

  /** Goes to a point; a move that goes nowhere is dropped. */
  to(x: number, y: number, z: number, feed: number): void {
    const n = this.xyz.length;
    if (n > 0 && this.xyz[n - 3] === x && this.xyz[n - 2] === y && this.xyz[n - 1] === z) return;
    this.xyz.push(x, y, z);
    this.feeds.push(feed);
  }

  /** Unit vector of the last move across the sheet; (1, 0) where there was none. */
  heading(): [number, number] {
    const n = this.xyz.length;
    if (n < 6) return [1, 0];
    const dx = this.xyz[n - 3] - this.xyz[n - 6];
    const dy = this.xyz[n - 2] - this.xyz[n - 5];
    const length = Math.hypot(dx, dy);
    return length > 0 ? [dx / length, dy / length] : [1, 0];
  }

  done(): Path {
    return { xyz: Float64Array.from(this.xyz), feed: Float64Array.from(this.feeds) };
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
    const length = Math.hypot(
      xyz[3 * i] - xyz[3 * i - 3],
      xyz[3 * i + 1] - xyz[3 * i - 2],
      xyz[3 * i + 2] - xyz[3 * i - 1],
    );
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
