/** Places of a kerf are looked at so often, mm. */
const EVERY = 1;
/** How much of a kerf a place may be off what it is taken for, and how much of a kerf’s places have to agree. */
const OFF = 0.2;
const MOST = 0.6;

/** What is drawn on a sheet, and how far beside it the kerf goes that is being cut. */
export class DrawnLines {
  private readonly seen = { once: 0, twice: 0, all: 0 };
  private left = 0;

  /** @param lines x and y in turn, mm from the sheet’s corner. */
  constructor(private readonly lines: readonly (readonly number[])[]) {}

  /** The arc has gone along a stretch. @param kerf how wide it cuts, mm. */
  passed(ax: number, ay: number, bx: number, by: number, kerf: number): void {
    this.left += Math.hypot(bx - ax, by - ay);
    if (this.lines.length === 0 || this.left < EVERY) return;
    this.left = 0;
    const off = this.distance(bx, by) / kerf;
    this.seen.all++;
    if (Math.abs(off - 0.5) < OFF) this.seen.once++;
    else if (Math.abs(off - 1) < OFF) this.seen.twice++;
  }

  /** The arc has gone out: how often the kerf was taken off along most of it; nothing where that is not clear. */
  ended(): 'once' | 'twice' | undefined {
    const { once, twice, all } = this.seen;
    Object.assign(this.seen, { once: 0, twice: 0, all: 0 });
    if (all === 0) return undefined;
    return once > MOST * all ? 'once' : twice > MOST * all ? 'twice' : undefined;
  }

  private distance(x: number, y: number): number {
    let least = Infinity;
    for (const points of this.lines)
      for (let i = 2; i < points.length; i += 2) {
        const [ax, ay] = [points[i - 2], points[i - 1]];
        const [dx, dy] = [points[i] - ax, points[i + 1] - ay];
        const l2 = dx * dx + dy * dy;
        const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
        least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
      }
    return least;
  }
}
