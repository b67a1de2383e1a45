/** A tab on a loop, by the arc length where it begins and ends, and its middle on the sheet. */
export interface Tab {
  from: number;
  to: number;
  x: number;
  y: number;
}

/** Places where the loop turns more than this (radians) along a tab are avoided: they are hard to sand. */
const STRAIGHT_ENOUGH = (10 * Math.PI) / 180;

/**
 * Spreads tabs evenly along a loop and moves each to the nearest place that is straight for its whole length.
 * Fewer come back where the loop is too short for them.
 *
 * @param width length along the loop over which the bit rises, mm.
 * @example placeTabs(Float64Array.of(0, 0, 100, 0, 100, 50, 0, 50), 2, 10).length // 2
 */
export function placeTabs(loop: Float64Array, count: number, width: number): Tab[] {
  const n = loop.length / 2;
  const at = new Float64Array(n + 1);
  const heading = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const k = ((i + 1) % n) * 2;
    const dx = loop[k] - loop[2 * i];
    const dy = loop[k + 1] - loop[2 * i + 1];
    at[i + 1] = at[i] + Math.hypot(dx, dy);
    heading[i] = Math.atan2(dy, dx);
  }
  const total = at[n];
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
  const segmentAt = (s: number) => {
    let lo = 0;
    let hi = n;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (at[mid] <= s) lo = mid;
      else hi = mid;
    }
    return lo;
  };
  const turningAlong = (from: number, to: number) => {
    const a = ((from % total) + total) % total;
    const b = ((to % total) + total) % total;
    const ta = turned[segmentAt(a) + 1];
    const tb = turned[segmentAt(b) + 1];
    return a <= b ? tb - ta : turned[n] - ta + tb;
  };
  const spacing = total / fitting;
  const tabs: Tab[] = [];
  for (let k = 0; k < fitting; k++) {
    const wanted = (k + 0.5) * spacing;
    let best = wanted;
    let least = Infinity;
    for (let j = 0; j <= 80; j++) {
      const off = ((j % 2 ? 1 : -1) * Math.ceil(j / 2) * spacing * 0.4) / 40;
      const middle = wanted + off;
      const bend = turningAlong(middle - width, middle + width);
      if (bend < least - 1e-9) [best, least] = [middle, bend];
      if (least < STRAIGHT_ENOUGH) break;
    }
    const s = ((best % total) + total) % total;
    const i = segmentAt(s);
    const next = ((i + 1) % n) * 2;
    const t = at[i + 1] > at[i] ? (s - at[i]) / (at[i + 1] - at[i]) : 0;
    tabs.push({
      from: best - width / 2,
      to: best + width / 2,
      x: loop[2 * i] + t * (loop[next] - loop[2 * i]),
      y: loop[2 * i + 1] + t * (loop[next + 1] - loop[2 * i + 1]),
    });
  }
  return tabs;
}
