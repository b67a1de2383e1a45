/** The edges of some outlines, for brute force: distances in closed form, a grid only to find what is near. */
export class Edges {
  private readonly cells = new Map<number, number[]>();
  private readonly nears = new Map<string, readonly number[]>();
  private readonly segments: Float64Array;
  private readonly kept: ReadonlySet<string>;
  private readonly size: number;
  private readonly reach: number;

  /** @param reach distances beyond this come back as it, mm. */
  constructor(
    private readonly loops: readonly (readonly [number, number][])[],
    reach: number,
  ) {
    this.reach = reach;
    // An edge that stands twice has the area on both its sides, and is no outline.
    const once = new Map<string, number[]>();
    for (const loop of loops)
      for (let i = 0; i < loop.length; i++) {
        const ends = [loop[i], loop[(i + 1) % loop.length]];
        const key = keyOf(ends[0], ends[1]);
        if (!once.delete(key)) once.set(key, ends.flat());
      }
    this.kept = new Set(once.keys());
    this.segments = Float64Array.from([...once.values()].flat());
    const { minX, minY, maxX, maxY } = this.bounds;
    this.size = Math.max(Math.max(maxX - minX, maxY - minY) / 60, 0.05);
    for (let s = 0; s < this.segments.length; s += 4) {
      const [ax, ay, bx, by] = this.segments.subarray(s, s + 4);
      for (let i = this.cell(Math.min(ax, bx)); i <= this.cell(Math.max(ax, bx)); i++)
        for (let j = this.cell(Math.min(ay, by)); j <= this.cell(Math.max(ay, by)); j++) {
          const key = i * 1_000_003 + j;
          const list = this.cells.get(key);
          if (list) list.push(s);
          else this.cells.set(key, [s]);
        }
    }
  }

  /** Whether a line between two corners is one of the edges. */
  has(a: readonly number[], b: readonly number[]): boolean {
    return this.kept.has(keyOf(a, b));
  }

  private cell(v: number): number {
    return Math.floor(v / this.size);
  }

  /** Edges of which a part may lie no further than `reach` from a box. */
  private near(minX: number, minY: number, maxX: number, maxY: number, reach: number): readonly number[] {
    const [i0, i1] = [this.cell(minX - reach), this.cell(maxX + reach)];
    const [j0, j1] = [this.cell(minY - reach), this.cell(maxY + reach)];
    const where = `${i0} ${i1} ${j0} ${j1}`;
    const known = this.nears.get(where);
    if (known) return known;
    const found = new Set<number>();
    if ((i1 - i0) * (j1 - j0) > 20_000) for (let s = 0; s < this.segments.length; s += 4) found.add(s);
    else
      for (let i = i0; i <= i1; i++)
        for (let j = j0; j <= j1; j++) for (const s of this.cells.get(i * 1_000_003 + j) ?? []) found.add(s);
    const list = [...found];
    if (this.nears.size > 20_000) this.nears.clear();
    this.nears.set(where, list);
    return list;
  }

  /** Distance from a place to the nearest edge, or the reach, and on which side of it the place lies is not said. */
  distance(x: number, y: number): number {
    const g = this.segments;
    // In growing squares: what is found within one cannot be beaten by what lies beyond it.
    for (let within = this.size; ; within *= 2) {
      let best = Math.min(within, this.reach);
      for (const s of this.near(x, y, x, y, best))
        best = Math.min(best, toSegment(x, y, g[s], g[s + 1], g[s + 2], g[s + 3]));
      if (best < within || within >= this.reach) return best;
    }
  }

  /** The point of the edges nearest to a place, within the reach. */
  nearest(x: number, y: number): [number, number] | undefined {
    let best = this.reach;
    let found: [number, number] | undefined;
    const within = this.distance(x, y) + 1e-9;
    if (within > this.reach) return undefined;
    for (const s of this.near(x, y, x, y, within)) {
      const [ax, ay, bx, by] = this.segments.subarray(s, s + 4);
      const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
      const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l2)) : 0;
      const [px, py] = [ax + t * (bx - ax), ay + t * (by - ay)];
      const d = Math.hypot(x - px, y - py);
      if (d < best) [best, found] = [d, [px, py]];
    }
    return found;
  }

  /**
   * Distance from a straight move to the nearest edge, or the reach: 0 where it crosses one.
   * @param enough further than this need not be known exactly, mm.
   */
  fromMove(px: number, py: number, qx: number, qy: number, enough = Infinity): number {
    const [dp, dq] = [this.distance(px, py), this.distance(qx, qy)];
    let best = Math.min(dp, dq);
    const least = (dp + dq - Math.hypot(qx - px, qy - py)) / 2;
    if (least >= enough) return least;
    for (const s of this.near(Math.min(px, qx), Math.min(py, qy), Math.max(px, qx), Math.max(py, qy), best)) {
      const [ax, ay, bx, by] = this.segments.subarray(s, s + 4);
      if (crosses(px, py, qx, qy, ax, ay, bx, by)) return 0;
      best = Math.min(
        best,
        toSegment(px, py, ax, ay, bx, by),
        toSegment(qx, qy, ax, ay, bx, by),
        toSegment(ax, ay, px, py, qx, qy),
        toSegment(bx, by, px, py, qx, qy),
      );
    }
    return best;
  }

  /** Even-odd, by counting the edges to the right. */
  inside(x: number, y: number): boolean {
    let inside = false;
    const { segments } = this;
    for (let s = 0; s < segments.length; s += 4) {
      const ay = segments[s + 1];
      const by = segments[s + 3];
      if (ay > y !== by > y && x < segments[s] + ((segments[s + 2] - segments[s]) * (y - ay)) / (by - ay))
        inside = !inside;
    }
    return inside;
  }

  get bounds(): { minX: number; minY: number; maxX: number; maxY: number } {
    const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
    for (const loop of this.loops)
      for (const [x, y] of loop) {
        box.minX = Math.min(box.minX, x);
        box.maxX = Math.max(box.maxX, x);
        box.minY = Math.min(box.minY, y);
        box.maxY = Math.max(box.maxY, y);
      }
    return box;
  }
}

const keyOf = (a: readonly number[], b: readonly number[]) => [a.join(), b.join()].sort().join(' ');

export function toSegment(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const l2 = dx * dx + dy * dy;
  const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

function crosses(
  px: number,
  py: number,
  qx: number,
  qy: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  const side = (ux: number, uy: number, vx: number, vy: number, wx: number, wy: number) =>
    (vx - ux) * (wy - uy) - (vy - uy) * (wx - ux);
  return (
    side(px, py, qx, qy, ax, ay) * side(px, py, qx, qy, bx, by) < 0 &&
    side(ax, ay, bx, by, px, py) * side(ax, ay, bx, by, qx, qy) < 0
  );
}
