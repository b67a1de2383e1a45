import type { ArcLength } from '../geometry/arc-length.ts';
import { LEAST_WAY } from './entry.ts';
import type { Tab } from './tabs.ts';

/** Tabs that overlap, or leave less than a length between them, as one: where it begins and ends along the loop. */
function merged(tabs: readonly Tab[], total: number, least: number): Pick<Tab, 'from' | 'to'>[] {
  const out: { from: number; to: number }[] = [];
  const turn = (s: number) => ((s % total) + total) % total;
  const sorted = tabs.map(({ from, to }) => ({ from: turn(from), to: turn(from) + to - from }));
  for (const tab of sorted.sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && tab.from <= last.to + least) last.to = Math.max(last.to, tab.to);
    else out.push({ ...tab });
  }
  // The last may reach over the loop's start into the first.
  const [first, last] = [out[0], out[out.length - 1]];
  if (out.length > 1 && last.to + least - total >= first.from) {
    last.to = Math.max(last.to, first.to + total);
    out.shift();
  }
  return out;
}

/** One turn round a loop as x, y, z triples, from arc length `start`, at `z` or, over tabs, at `ceiling`. */
export function turnOf(
  measured: ArcLength,
  start: number,
  tabs: readonly Tab[],
  z: number,
  ceiling: number,
  { ramped, diameter, overlap }: { ramped: boolean; diameter: number; overlap: number },
): number[] {
  const { at, total } = measured;
  const end = total + Math.min(overlap, total);
  const stops: { s: number; heights?: number[] }[] = [];
  const add = (s: number, heights?: number[]) => {
    const first = measured.wrap(s - start);
    for (let q = first; q <= end + 1e-12; q += total) stops.push({ s: q, heights });
  };
  for (let i = 0; i + 1 < at.length; i++) add(at[i]);
  for (const tab of ramped ? tabs : merged(tabs, total, LEAST_WAY * diameter)) {
    if (ramped) {
      // Up to the middle and down again, so that the tab is a ridge that breaks off easily.
      const middle = (tab.from + tab.to) / 2;
      add(tab.from + diameter / 2, [z]);
      add(middle, [ceiling]);
      add(tab.to - diameter / 2, [z]);
    } else {
      add(tab.from, [z, ceiling]);
      add(tab.to, [ceiling, z]);
    }
  }
  stops.push({ s: 0 }, { s: end });
  stops.sort((a, b) => a.s - b.s);
  const ridgeAt = (s: number): number => {
    for (const tab of tabs) {
      const half = (tab.to - tab.from - diameter) / 2;
      const off = Math.abs(measured.wrap(s + start - (tab.from + tab.to) / 2 + total / 2) - total / 2);
      if (off < half) return z + (ceiling - z) * (1 - off / half);
    }
    return z;
  };
  const out: number[] = [];
  const onTab = !ramped && tabs.some((tab) => measured.wrap(start - tab.from) < tab.to - tab.from - 1e-9);
  let height = onTab ? ceiling : z;
  for (const stop of stops) {
    const { x, y } = measured.pointAt(start + stop.s);
    if (ramped) out.push(x, y, stop.heights ? stop.heights[0] : ridgeAt(stop.s));
    else if (stop.heights) {
      for (const h of stop.heights) out.push(x, y, h);
      height = stop.heights[stop.heights.length - 1];
    } else out.push(x, y, height);
  }
  return out;
}
