import Flatbush from 'flatbush';
import type { ArcLength } from '../geometry/arc-length.ts';
import type { Tab } from './tabs.ts';

/** How much nearer than it may a bit comes to a tab, mm: rounding. */
const GRAZE = 0.01;

/** Knows where tabs stand, so that no way in or out is laid over one. */
export class StandingTabs {
  private readonly index: Flatbush;
  private readonly places: { x: number; y: number; loop: number }[] = [];
  private readonly every: number;

  /** @param all tabs of each loop. @param radius of the bit, mm. */
  constructor(
    all: readonly { measured: ArcLength; tabs: readonly Tab[] }[],
    private readonly radius: number,
  ) {
    this.every = radius / 2;
    all.forEach(({ measured, tabs }, loop) => {
      for (const { from, to } of tabs) {
        // The bit comes as near as its radius to what stands.
        const [first, last] = [from + radius, to - radius];
        const n = Math.max(1, Math.ceil((last - first) / this.every));
        for (let k = 0; k <= n; k++) {
          const { x, y } = measured.pointAt(first + ((last - first) * k) / n);
          this.places.push({ x, y, loop });
        }
      }
    });
    this.index = new Flatbush(Math.max(1, this.places.length));
    for (const { x, y } of this.places) this.index.add(x, y, x, y);
    if (this.places.length === 0) this.index.add(Infinity, Infinity, Infinity, Infinity);
    this.index.finish();
  }

  /** Whether a bit at a place beside a loop takes from a tab: of the same loop what its turn leaves, of others any. */
  takes(on: number, x: number, y: number): boolean {
    const reach = 2 * this.radius;
    return this.index.search(x - reach, y - reach, x + reach, y + reach).some((k) => {
      const { x: px, y: py, loop } = this.places[k];
      const off = Math.hypot(px - x, py - y);
      return off < (loop === on ? this.radius : reach) - GRAZE;
    });
  }
}
