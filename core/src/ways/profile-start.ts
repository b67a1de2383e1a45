import type { ArcLength } from '../geometry/arc-length.ts';
import type { Loops } from '../geometry/clipper.ts';
import { boundsOf } from '../geometry/outline.ts';
import type { LeadSettings } from './profile-lead.ts';
import type { Tab } from './tabs.ts';

export interface StartSettings extends LeadSettings {
  /** Where to start, on the sheet: each loop at its point nearest to one of these; without any, see `startOf`. */
  start?: readonly { x: number; y: number }[];
}

/** Corners of a part that turn more than this hide where the bit came in, radians: 30°. */
const SHARP = Math.PI / 6;

/** A corner that stands out, and the direction in which it points. */
export interface Corner {
  x: number;
  y: number;
  dx: number;
  dy: number;
}

/** The part's own corners that stand out into the bit's way, the sharpest first. */
export function sharpCorners(area: Loops, side: LeadSettings['side']): Corner[] {
  const found: (Corner & { turn: number })[] = [];
  for (const loop of area)
    for (let n = loop.length, i = 0; i < n; i += 2) {
      const [p, q] = [(i + n - 2) % n, (i + 2) % n];
      const [ux, uy] = [loop[i] - loop[p], loop[i + 1] - loop[p + 1]];
      const [vx, vy] = [loop[q] - loop[i], loop[q + 1] - loop[i + 1]];
      const turn = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
      // Round the area where it is the part; where the part lies outside, its corners point into the area.
      const out = side === 'outside' ? turn : side === 'inside' ? -turn : Math.abs(turn);
      if (out <= SHARP) continue;
      const [lu, lv] = [Math.hypot(ux, uy), Math.hypot(vx, vy)];
      const [bx, by] = [ux / lu - vx / lv, uy / lu - vy / lv];
      const b = Math.hypot(bx, by);
      found.push({ x: loop[i], y: loop[i + 1], dx: bx / b, dy: by / b, turn: out });
    }
  return found.sort((a, b) => b.turn - a.turn || a.x + a.y - b.x - b.y);
}

/**
 * Where to begin: at the place nearest to one that was chosen; else where it shows least, at a sharp corner of the part, which the bit only touches; else
 * in the middle of the longest stretch. Never on a tab.
 */
export function startOf(
  measured: ArcLength,
  tabs: readonly Tab[],
  { start: chosen, lead, side, diameter }: StartSettings,
  corners: readonly Corner[],
): number {
  if (chosen?.length) return nearestTo(measured, chosen);
  const clear = lead?.length ?? 0;
  const onTab = (s: number) => tabs.some((tab) => measured.wrap(s - tab.from + clear) < tab.to - tab.from + 2 * clear);
  const off = side === 'on' ? 0 : diameter / 2;
  const box = boundsOf([{ points: measured.loop }])!;
  for (const { x, y, dx, dy } of corners) {
    if (x < box.minX - off || x > box.maxX + off || y < box.minY - off || y > box.maxY + off) continue;
    const s = measured.nearest(x + off * dx, y + off * dy);
    const place = measured.pointAt(s);
    if (Math.abs(Math.hypot(place.x - x, place.y - y) - off) < 0.01 && !onTab(s)) return s;
  }
  // Where tabs leave no room for a lead, beside them is still better than on them.
  return measured.wrap(longestFree(measured, tabs, clear) ?? longestFree(measured, tabs, 0) ?? 0);
}

/** The distance along a loop of its point nearest to any of some places. */
function nearestTo(measured: ArcLength, places: readonly { x: number; y: number }[]): number {
  let best = 0;
  let least = Infinity;
  for (const { x, y } of places) {
    const s = measured.nearest(x, y);
    const on = measured.pointAt(s);
    const off = Math.hypot(on.x - x, on.y - y);
    if (off < least) [best, least] = [s, off];
  }
  return best;
}

/** The middle of the longest straight stretch that tabs leave free; nothing where they leave none. */
function longestFree({ at, total }: ArcLength, tabs: readonly Tab[], clear: number): number | undefined {
  let best: number | undefined;
  let longest = 0;
  const spans = tabSpans(tabs, clear, total);
  for (let i = 0; i + 1 < at.length; i++) {
    let from = at[i];
    for (const [low, high] of spans) {
      if (high <= from || low >= at[i + 1]) continue;
      if (low - from > longest) [best, longest] = [(from + low) / 2, low - from];
      from = high;
    }
    if (at[i + 1] - from > longest) [best, longest] = [(from + at[i + 1]) / 2, at[i + 1] - from];
  }
  return best;
}

/** Stretches of a loop that tabs take, with room on both sides, in order; one over the loop's start stands twice. */
function tabSpans(tabs: readonly Tab[], clear: number, total: number): [number, number][] {
  return tabs
    .flatMap((tab) =>
      [-total, 0, total].map((turn): [number, number] => [tab.from - clear + turn, tab.to + clear + turn]),
    )
    .sort((a, b) => a[0] - b[0]);
}
