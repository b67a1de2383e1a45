import { ArcLength } from '../geometry/arc-length.ts';
import { Turning } from '../geometry/turning.ts';

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

/** How much more a bend in a tab counts than one beside it. */
const ON_TAB = 10;

/** A tab of which another cut takes an end is no better than one that bends by 45°. */
const HALF_A_TAB = (ON_TAB * Math.PI) / 4;

/** Between one tab and the next at least this share of a tab's width is cut. */
const APART = 1.1;

/** Places tried on either side of where a tab is wanted. */
const TRIES = 80;

/**
 * Spreads tabs evenly along a loop and moves each to the nearest place that is straight for its whole length, however far
 * that is. Fewer come back where the loop is too short for them, or has no place for them.
 *
 * @param width length along the loop over which the bit rises, mm.
 * @param stands what is left of a tab at some place by all else that is cut; one that stands whole is worth a bend.
 * @param make a tab round a place; round a bend it may be longer than `width`.
 * @example placeTabs(Float64Array.of(0, 0, 100, 0, 100, 50, 0, 50), 2, 10).length // 2
 */
export function placeTabs(
  loop: Float64Array,
  count: number,
  width: number,
  stands: (tab: Tab) => Standing = () => 'whole',
  make: (middle: number) => Tab = (middle) => tabAt(loop, middle, width),
): Tab[] {
  const measured = new ArcLength(loop);
  const { total } = measured;
  const fitting = Math.min(count, Math.floor(total / (2 * width)));
  if (fitting < 1) return [];
  const turning = new Turning(measured);
  const spacing = total / fitting;
  const tabs: Tab[] = [];
  const free = (tab: Tab) => tabs.every((other) => apart(tab, other, total) > (APART - 1) * width);
  for (let k = 0; k < fitting; k++) {
    const wanted = (k + 0.5) * spacing;
    let best: Tab | undefined;
    let least = Infinity;
    const look = (most: number, enough: () => boolean) => {
      for (let j = 0; j <= TRIES && !enough(); j++) {
        const middle = wanted + ((j % 2 ? 2 : -2) * Math.ceil(j / 2) * most) / TRIES;
        const tab = make(middle);
        // A bend in the tab itself counts more than one beside it.
        const bend = ON_TAB * turning.bend(tab.from, tab.to) + turning.bend(middle - width, middle + width);
        if (bend >= least - 1e-9) continue;
        const standing = stands(tab);
        const worse = bend + (standing === 'half' ? HALF_A_TAB : 0);
        if (standing !== 'no' && worse < least && free(tab)) [best, least] = [tab, worse];
      }
    };
    // First no further than its neighbour can come to meet it; then wherever an edge has room.
    look(Math.min(0.4 * spacing, (0.9 * spacing - width) / 2), () => least < STRAIGHT_ENOUGH);
    look(total / 2, () => best !== undefined && turning.bend(best.from, best.to) < STRAIGHT_ENOUGH);
    if (best) tabs.push(best);
  }
  return tabs;
}

/** Length of loop between two tabs, mm; less than 0 where they overlap. */
function apart(a: Tab, b: Tab, total: number): number {
  const off = Math.abs((a.from + a.to - b.from - b.to) / 2) % total;
  return Math.min(off, total - off) - (a.to - a.from + b.to - b.from) / 2;
}

/** A tab round a place on a loop, named by its distance along it. */
export function tabAt(loop: Float64Array, middle: number, width: number, measured = new ArcLength(loop)): Tab {
  const { x, y } = measured.pointAt(middle);
  return { from: middle - width / 2, to: middle + width / 2, x, y };
}

/** What a tab is to be, and how its part lies. */
export interface TabShape {
  /** How much is to stand at the part, mm. */
  length: number;
  /** Of the bit, mm. */
  diameter: number;
  /** On which side of the bit's way the part lies; `on` where the bit goes along the line itself. */
  part: 'left' | 'right' | 'on';
}

/** Growing round a bend ends by itself; a loop is at most so many such steps. */
const MOST_STEPS = 30;

/**
 * A tab of which as much stands at the part as was asked for: where the way bends round the part, the way over the tab is
 * longer than the part's own edge by the bit's radius times the bend.
 */
export function tabRound(measured: ArcLength, turning: Turning, middle: number, shape: TabShape): Tab {
  const { length, diameter, part } = shape;
  const round = part === 'on' ? 0 : part === 'left' ? diameter / 2 : -diameter / 2;
  const most = measured.total / 2;
  let solid = length;
  for (let step = 0; step < MOST_STEPS; step++) {
    const needed = Math.min(most, length + Math.max(0, round * turning.toLeft(middle - solid / 2, middle + solid / 2)));
    if (needed <= solid + 1e-6) break;
    solid = needed;
  }
  const { x, y } = measured.pointAt(middle);
  const [first, last] = [middle - solid / 2, middle + solid / 2];
  return {
    from: first - clear(measured, first, -1, diameter / 2),
    to: last + clear(measured, last, 1, diameter / 2),
    x,
    y,
  };
}

/** How far along its way from a place a bit has to be, mm, so as not to reach it: its radius, and more on a winding way. */
function clear(measured: ArcLength, place: number, way: 1 | -1, radius: number): number {
  const at = measured.pointAt(place);
  for (let off = radius; off < 4 * radius; off += radius / 8) {
    const { x, y } = measured.pointAt(place + way * off);
    if (Math.hypot(x - at.x, y - at.y) >= radius - 1e-6) return off;
  }
  return radius;
}
