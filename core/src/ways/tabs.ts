import { ArcLength } from '../geometry/arc-length.ts';

/** A tab on a loop, by the arc length where it begins and ends, and its middle on the sheet. */
export interface Tab {
  from: number;
  to: number;
  x: number;
  y: number;
}

/** How much of a tab stands. */
export type Standing = 'whole' | 'half' | 'no';

/** Places where the loop turns more than this (radians) along a tab are avoided: they are hard to sand. */
const STRAIGHT_ENOUGH = (10 * Math.PI) / 180;

/** A tab of which another cut takes an end is no better than one round such a bend, radians. */
const HALF_A_TAB = Math.PI / 2;

/**
 * Spreads tabs evenly along a loop and moves each to the nearest place that is straight for its whole length.
 * Fewer come back where the loop is too short for them, or has no place for them.
 *
 * @param width length along the loop over which the bit rises, mm.
 * @param stands what is left of a tab at some place by all else that is cut; one that stands whole is worth a bend.
 * @example placeTabs(Float64Array.of(0, 0, 100, 0, 100, 50, 0, 50), 2, 10).length // 2
 */
export function placeTabs(
  loop: Float64Array,
  count: number,
  width: number,
  stands: (tab: Tab) => Standing = () => 'whole',
): Tab[] {
  const n = loop.length / 2;
  const measured = new ArcLength(loop);
  const { total } = measured;
  const heading = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const k = ((i + 1) % n) * 2;
    heading[i] = Math.atan2(loop[k + 1] - loop[2 * i + 1], loop[k] - loop[2 * i]);
  }
  const fitting = Math.min(count, Math.floor(total / (2 * width)));
  if (fitting < 1) return [];
  const turn = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const d = heading[i] - heading[(i + n - 1) % n];
    turn[i] = Math.abs(Math.atan2(Math.sin(d), Math.cos(d)));
  }
  // Total turning from the loop's start up to vertex i, so that the turning along any stretch is one subtraction.
  const turned = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) turned[i + 1] = turned[i] + turn[i];
  const turningAlong = (from: number, to: number) => {
    const a = measured.wrap(from);
    const b = measured.wrap(to);
    const ta = turned[measured.segmentAt(a) + 1];
    const tb = turned[measured.segmentAt(b) + 1];
    return a <= b ? tb - ta : turned[n] - ta + tb;
  };
  const spacing = total / fitting;
  // No further than its neighbour can come to meet it.
  const most = Math.min(0.4 * spacing, (0.9 * spacing - width) / 2);
  const tabs: Tab[] = [];
  for (let k = 0; k < fitting; k++) {
    const wanted = (k + 0.5) * spacing;
    let best: Tab | undefined;
    let least = Infinity;
    for (let j = 0; j <= 80; j++) {
      const off = ((j % 2 ? 1 : -1) * Math.ceil(j / 2) * most) / 40;
      const middle = wanted + off;
      const bend = turningAlong(middle - width, middle + width);
      if (bend < least - 1e-9) {
        const tab = tabAt(loop, middle, width, measured);
        const standing = stands(tab);
        const worse = bend + (standing === 'half' ? HALF_A_TAB : 0);
        if (standing !== 'no' && worse < least) [best, least] = [tab, worse];
      }
      if (least < STRAIGHT_ENOUGH) break;
    }
    if (best) tabs.push(best);
  }
  return tabs;
}

/** A tab round a place on a loop, named by its distance along it. */
export function tabAt(loop: Float64Array, middle: number, width: number, measured = new ArcLength(loop)): Tab {
  const { x, y } = measured.pointAt(middle);
  return { from: middle - width / 2, to: middle + width / 2, x, y };
}
