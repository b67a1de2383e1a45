import Flatbush from 'flatbush';
import type { Outline } from '../geometry/outline.ts';

/** Places nearer to each other than this are one, mm. */
const SAME = 1e-6;

/** A line with a point wherever it meets itself or another. */
export interface CrossedLine {
  points: Float64Array;
  closed: boolean;
}

/**
 * Lines with a point wherever two of them cross, or one ends on another, so that a walk may go over from one to the other
 * there. Ends that lie within `join` of another line's side come with the place beside them, as a bridge between.
 *
 * @param join mm.
 * @example a cross of two lines: both have three points, the middle one the same
 */
export function crossedLines(
  lines: readonly (Pick<Outline, 'closed'> & { points: ArrayLike<number> })[],
  join: number,
): { lines: CrossedLine[]; bridges: CrossedLine[] } {
  const ax: number[] = [];
  const ay: number[] = [];
  const bx: number[] = [];
  const by: number[] = [];
  /** The first side of each line. */
  const first: number[] = [];
  for (const { points, closed } of lines) {
    first.push(ax.length);
    const n = points.length / 2;
    for (let i = 0; i < (closed ? n : n - 1); i++) {
      const k = (i + 1) % n;
      ax.push(points[2 * i]);
      ay.push(points[2 * i + 1]);
      bx.push(points[2 * k]);
      by.push(points[2 * k + 1]);
    }
  }
  first.push(ax.length);
  const count = ax.length;
  const bridges: CrossedLine[] = [];
  if (count === 0) return { lines: [], bridges };
  const bush = new Flatbush(count);
  for (let s = 0; s < count; s++)
    bush.add(Math.min(ax[s], bx[s]), Math.min(ay[s], by[s]), Math.max(ax[s], bx[s]), Math.max(ay[s], by[s]));
  bush.finish();
  /** Further places on sides, as shares of them. */
  const places = new Map<number, { t: number; x: number; y: number }[]>();
  const put = (side: number, t: number, x: number, y: number) => {
    const here = places.get(side);
    if (here) here.push({ t, x, y });
    else places.set(side, [{ t, x, y }]);
  };
  for (let s = 0; s < count; s++) {
    const [dx, dy] = [bx[s] - ax[s], by[s] - ay[s]];
    const box = [
      Math.min(ax[s], bx[s]),
      Math.min(ay[s], by[s]),
      Math.max(ax[s], bx[s]),
      Math.max(ay[s], by[s]),
    ] as const;
    for (const o of bush.search(...box)) {
      if (o <= s) continue;
      const [ex, ey] = [bx[o] - ax[o], by[o] - ay[o]];
      const cross = dx * ey - dy * ex;
      const size = Math.hypot(dx, dy) * Math.hypot(ex, ey);
      if (Math.abs(cross) <= 1e-12 * size) continue;
      const [wx, wy] = [ax[o] - ax[s], ay[o] - ay[s]];
      const t = (wx * ey - wy * ex) / cross;
      const u = (wx * dy - wy * dx) / cross;
      const [slackT, slackU] = [SAME / Math.hypot(dx, dy), SAME / Math.hypot(ex, ey)];
      if (t < -slackT || t > 1 + slackT || u < -slackU || u > 1 + slackU) continue;
      // Where one has a corner already, that is the place.
      const [onS, onO] = [atEnd(t, slackT), atEnd(u, slackU)];
      const [x, y] =
        onS !== undefined
          ? [onS ? bx[s] : ax[s], onS ? by[s] : ay[s]]
          : onO !== undefined
            ? [onO ? bx[o] : ax[o], onO ? by[o] : ay[o]]
            : [ax[s] + t * dx, ay[s] + t * dy];
      if (onS === undefined) put(s, t, x, y);
      if (onO === undefined) put(o, u, x, y);
    }
  }
  if (join > 0)
    lines.forEach(({ points, closed }, k) => {
      if (closed || points.length < 4) return;
      for (const [i, own] of [
        [0, first[k]],
        [points.length - 2, first[k + 1] - 1],
      ]) {
        const [x, y] = [points[i], points[i + 1]];
        let best: { s: number; t: number; x: number; y: number; away: number } | undefined;
        for (const s of bush.search(x - join, y - join, x + join, y + join)) {
          if (s === own) continue;
          const [dx, dy] = [bx[s] - ax[s], by[s] - ay[s]];
          const long = dx * dx + dy * dy;
          const t = long > 0 ? ((x - ax[s]) * dx + (y - ay[s]) * dy) / long : 0;
          const room = join / Math.sqrt(long || 1);
          // Near an end of the other it is that end which it is joined to.
          if (t <= room || t >= 1 - room) continue;
          const [px, py] = [ax[s] + t * dx, ay[s] + t * dy];
          const away = Math.hypot(px - x, py - y);
          if (away <= join && away > SAME && !(best && best.away <= away)) best = { s, t, x: px, y: py, away };
        }
        if (!best) continue;
        put(best.s, best.t, best.x, best.y);
        bridges.push({ points: Float64Array.of(x, y, best.x, best.y), closed: false });
      }
    });
  return {
    bridges,
    lines: lines.map(({ points, closed }, k) => {
      const out: number[] = [];
      for (let i = 0; i < points.length; i += 2) {
        out.push(points[i], points[i + 1]);
        const here = places.get(first[k] + i / 2);
        if (first[k] + i / 2 >= first[k + 1] || !here) continue;
        for (const { x, y } of here.sort((a, b) => a.t - b.t)) out.push(x, y);
      }
      return { points: Float64Array.from(out), closed };
    }),
  };
}

/** Which end of a side a share of it is at: false at its beginning, true at its end. */
const atEnd = (t: number, slack: number): boolean | undefined =>
  Math.abs(t) <= slack ? false : Math.abs(t - 1) <= slack ? true : undefined;
