import Flatbush from 'flatbush';
import type { ArcLength } from '../geometry/arc-length.ts';
import type { Standing, Tab } from './tabs.ts';

/** How much nearer than its radius a bit may pass by a tab, mm. */
const GRAZE = 0.01;

/** Knows where bits go, so that a tab is not put where another stretch, across a narrow slit or round a corner, cuts it. */
export class TabRoom {
  private readonly bush: Flatbush;
  private readonly segments: { loop: number; from: number; to: number; ends: [number, number, number, number] }[] = [];

  /** @param loops all that is cut at the tabs' depth. */
  constructor(
    private readonly loops: readonly ArcLength[],
    private readonly radius: number,
  ) {
    loops.forEach(({ loop, at }, k) => {
      for (let i = 0; i < loop.length; i += 2) {
        const j = (i + 2) % loop.length;
        const ends: [number, number, number, number] = [loop[i], loop[i + 1], loop[j], loop[j + 1]];
        this.segments.push({ loop: k, from: at[i / 2], to: at[i / 2 + 1], ends });
      }
    });
    this.bush = new Flatbush(Math.max(1, this.segments.length));
    for (const { ends } of this.segments)
      this.bush.add(
        Math.min(ends[0], ends[2]),
        Math.min(ends[1], ends[3]),
        Math.max(ends[0], ends[2]),
        Math.max(ends[1], ends[3]),
      );
    if (this.segments.length === 0) this.bush.add(Infinity, Infinity, Infinity, Infinity);
    this.bush.finish();
  }

  /** What stays of a tab on one of the loops over the whole width of the slot: all, at least its inner half, or less. */
  stands(on: number, { from, to }: Tab): Standing {
    const { radius, loops } = this;
    const measured = loops[on];
    const solid = to - from - 2 * radius;
    const cut = (share: number) => {
      const { x, y, dx, dy } = measured.pointAt((from + to) / 2 + share * solid);
      return [-radius, 0, radius].some((off) => this.cutAt(x - off * dy, y + off * dx, on, from, to));
    };
    // Nothing as wide as a bit passes between places that lie its radius apart.
    const pieces = 4 * Math.max(1, Math.ceil(solid / (4 * radius)));
    let whole = true;
    for (let k = 0; k <= pieces; k++) {
      if (!cut(k / pieces - 0.5)) continue;
      if (4 * k >= pieces && 4 * k <= 3 * pieces) return 'no';
      whole = false;
    }
    return whole ? 'whole' : 'half';
  }

  private cutAt(x: number, y: number, on: number, from: number, to: number): boolean {
    const { radius, segments, loops } = this;
    const { total } = loops[on];
    const reach = radius - GRAZE;
    for (const k of this.bush.search(x - radius, y - radius, x + radius, y + radius)) {
      const { loop, from: low, to: high, ends } = segments[k];
      const [ax, ay, bx, by] = ends;
      const [dx, dy] = [bx - ax, by - ay];
      const l2 = dx * dx + dy * dy;
      // The part of the segment that comes near.
      const middle = l2 > 0 ? ((x - ax) * dx + (y - ay) * dy) / l2 : 0;
      const away = l2 > 0 ? Math.abs((x - ax) * dy - (y - ay) * dx) / Math.sqrt(l2) : Math.hypot(x - ax, y - ay);
      if (away >= reach) continue;
      const half = l2 > 0 ? Math.sqrt((reach * reach - away * away) / l2) : 0;
      const [t0, t1] = [Math.max(0, middle - half), Math.min(1, middle + half)];
      if (t0 > t1) continue;
      if (loop !== on) return true;
      // On the tab's own stretch the bit is up.
      const [s0, s1] = [low + t0 * (high - low), low + t1 * (high - low)];
      const inTab = (s: number) => (((s - from) % total) + total) % total <= to - from + 1e-9;
      if (!inTab(s0) || !inTab(s1)) return true;
    }
    return false;
  }
}
