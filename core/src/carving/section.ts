import Flatbush from 'flatbush';
import { type Leaves, takenOut } from '../tools/leaves.ts';
import type { Profile } from '../tools/turned.ts';
import type { Path } from '../motion/path.ts';
import { sweptHeight } from './swept.ts';

/** A path, and what its tool leaves along it. */
export interface CarvedCut {
  path: Path;
  leaves: Leaves;
}

interface Moves {
  bush: Flatbush | undefined;
  /** Point number where each indexed move ends. */
  ends: Uint32Array;
  path: Path;
  profile: Profile;
  /** How deep a kerf is that goes right through, mm. */
  through?: number;
}

/** The moves of some cuts that go below the top of the stock, found by place. */
export class CarvedMoves {
  private readonly cuts: Moves[];

  constructor(cuts: readonly CarvedCut[]) {
    this.cuts = cuts.flatMap(({ path, leaves }) => {
      const profile = takenOut(leaves);
      if (!profile) return [];
      const { xyz, feed } = path;
      const ends: number[] = [];
      const through = leaves.kind === 'kerf' ? leaves.depth : undefined;
      for (let i = 1; i < feed.length; i++)
        if (through === undefined ? xyz[3 * i + 2] < 0 || xyz[3 * i - 1] < 0 : path.power[i] > 0) ends.push(i);
      const r = profile.radius;
      let bush: Flatbush | undefined;
      if (ends.length > 0) {
        bush = new Flatbush(ends.length);
        for (const i of ends) {
          const [ax, ay, bx, by] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1]];
          bush.add(Math.min(ax, bx) - r, Math.min(ay, by) - r, Math.max(ax, bx) + r, Math.max(ay, by) + r);
        }
        bush.finish();
      }
      return [{ bush, ends: Uint32Array.from(ends), path, profile, through }];
    });
  }

  /**
   * Heights along the line from (x0, y0) to (x1, y1) at `count` evenly spaced places, mm from the top of the stock;
   * 0 where nothing was cut.
   */
  along(x0: number, y0: number, x1: number, y1: number, count: number): Float64Array {
    const heights = new Float64Array(count);
    const length = Math.hypot(x1 - x0, y1 - y0);
    for (const { bush, ends, path, profile, through } of this.cuts) {
      if (!bush) continue;
      const { xyz } = path;
      const r = profile.radius;
      // The line in pieces, so that a slanted one does not ask for everything in its box.
      const pieces = Math.max(1, Math.min(64, Math.ceil(length / 20)));
      const seen = new Set<number>();
      for (let k = 0; k < pieces; k++) {
        const [pa, pb] = [k / pieces, (k + 1) / pieces];
        const found = bush.search(
          Math.min(x0 + (x1 - x0) * pa, x0 + (x1 - x0) * pb),
          Math.min(y0 + (y1 - y0) * pa, y0 + (y1 - y0) * pb),
          Math.max(x0 + (x1 - x0) * pa, x0 + (x1 - x0) * pb),
          Math.max(y0 + (y1 - y0) * pa, y0 + (y1 - y0) * pb),
        );
        for (const f of found) seen.add(f);
      }
      for (const f of seen) {
        const i = ends[f];
        const [ax, ay] = [xyz[3 * i - 3], xyz[3 * i - 2]];
        const [bx, by] = [xyz[3 * i], xyz[3 * i + 1]];
        const [az, bz] = through === undefined ? [xyz[3 * i - 1], xyz[3 * i + 2]] : [-through, -through];
        // Which places of the line the move can reach.
        const ta = length > 0 ? ((ax - x0) * (x1 - x0) + (ay - y0) * (y1 - y0)) / length : 0;
        const tb = length > 0 ? ((bx - x0) * (x1 - x0) + (by - y0) * (y1 - y0)) / length : 0;
        const step = count > 1 ? length / (count - 1) : 1;
        const first = Math.max(0, Math.floor((Math.min(ta, tb) - r) / step));
        const last = Math.min(count - 1, Math.ceil((Math.max(ta, tb) + r) / step));
        for (let j = first; j <= last; j++) {
          const t = count > 1 ? j / (count - 1) : 0;
          const h = sweptHeight(profile, ax, ay, az, bx, by, bz, x0 + t * (x1 - x0), y0 + t * (y1 - y0));
          if (h < heights[j]) heights[j] = h;
        }
      }
    }
    return heights;
  }
}
