import type { Path } from '@kerbe/core/motion/path';

/** Steps of the search where nobody says: some seconds for a demo job. */
const STEPS = 600_000;

/** Places nearer than this, mm, belong to each other: the one cut first stays first. */
const REACH = 3;

interface Stretch {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/**
 * The shortest links that simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983) finds for a path’s own tracks, from
 * the order they have; it shares no code with the order it is compared to. Tracks that come near each other keep their
 * order, since the one may be deeper than the other, or lie inside it.
 *
 * @param turnable whether tracks may be gone backwards, as a V-carve’s may.
 * @returns length of the links across, the first from the zero corner, as they are, and as they could be, mm.
 */
export function searchLinks(
  path: Path,
  turnable: boolean,
  steps = STEPS,
): { now: number; best: number; tracks: number } {
  const tracks = stretchesOf(path);
  const n = tracks.length;
  const order = tracks.map((_, k) => k);
  const turned = new Uint8Array(n);
  const before = earlierOf(tracks);
  const random = randomFrom(12345);
  const at = (i: number, end: boolean): [number, number] => {
    if (i < 0) return [0, 0];
    const k = order[i];
    const t = tracks[k];
    return end !== (turned[k] === 1) ? [t.bx, t.by] : [t.ax, t.ay];
  };
  const link = (i: number) => {
    if (i + 1 >= n) return 0;
    const [ax, ay] = at(i, true);
    const [bx, by] = at(i + 1, false);
    return Math.hypot(ax - bx, ay - by);
  };
  const total = () => order.reduce((sum, _, i) => sum + link(i), link(-1));
  const now = total();
  let length = now;
  let best = now;
  if (n < 3) return { now, best, tracks: n };
  const place = new Int32Array(n);
  const allowed = () => {
    for (let i = 0; i < n; i++) place[order[i]] = i;
    return order.every((k, i) => before[k].every((earlier) => place[earlier] < i));
  };
  const fits = (from: number, size: number, to: number) => {
    // Only what the moved tracks pass can be set wrong.
    const moved = order.slice(from, from + size);
    const passed = to > from ? order.slice(from + size, to + size) : order.slice(to, from);
    return to > from
      ? passed.every((k) => moved.every((m) => !before[k].includes(m)))
      : moved.every((m) => passed.every((k) => !before[m].includes(k)));
  };
  const hot = Math.max(1, now / n);
  for (let step = 0; step < steps; step++) {
    const heat = hot * (1 - step / steps) ** 3;
    if (turnable && random() < 0.3) {
      // Turn a run of tracks round.
      const from = Math.floor(random() * n);
      const size = 1 + Math.floor(random() * Math.min(30, n - from));
      const run = order.slice(from, from + size);
      if (run.some((k, i) => before[k].some((earlier) => run.indexOf(earlier) >= 0 && run.indexOf(earlier) < i)))
        continue;
      const old = link(from - 1) + link(from + size - 1);
      const [hx, hy] = at(from - 1, true);
      const [tx, ty] = from + size < n ? at(from + size, false) : [NaN, NaN];
      const [sx, sy] = at(from, false);
      const [ex, ey] = at(from + size - 1, true);
      const fresh = Math.hypot(hx - ex, hy - ey) + (from + size < n ? Math.hypot(sx - tx, sy - ty) : 0);
      if (fresh - old > 0 && random() >= Math.exp((old - fresh) / heat)) continue;
      run.reverse().forEach((k, i) => {
        order[from + i] = k;
        turned[k] ^= 1;
      });
      length += fresh - old;
    } else {
      const size = 1 + Math.floor(random() ** 2 * Math.min(12, n - 1));
      const from = Math.floor(random() * (n - size + 1));
      const to = Math.floor(random() * (n - size + 1));
      if (to === from) continue;
      const old = link(from - 1) + link(from + size - 1) + (to > from ? link(to + size - 1) : link(to - 1));
      if (!fits(from, size, to)) continue;
      const moved = order.splice(from, size);
      order.splice(to, 0, ...moved);
      const fresh = link(to - 1) + link(to + size - 1) + (to > from ? link(from - 1) : link(from + size - 1));
      if (fresh - old > 0 && random() >= Math.exp((old - fresh) / heat)) {
        order.splice(to, size);
        order.splice(from, 0, ...moved);
        continue;
      }
      length += fresh - old;
    }
    if (length < best) best = length;
  }
  // What was added up step by step is the truth, and broke no rule.
  if (!allowed() || Math.abs(total() - length) > 1e-3) throw new Error('The long search has lost its count.');
  return { now, best, tracks: n };
}

function stretchesOf({ xyz, rapid }: Path): Stretch[] {
  const out: Stretch[] = [];
  let open: Stretch | undefined;
  for (let i = 0; i < rapid.length; i++) {
    if (rapid[i]) {
      open = undefined;
      continue;
    }
    if (!open) {
      const [x, y] = [xyz[3 * i - 3], xyz[3 * i - 2]];
      out.push((open = { ax: x, ay: y, bx: x, by: y, minX: x, minY: y, maxX: x, maxY: y }));
    }
    const [x, y] = [xyz[3 * i], xyz[3 * i + 1]];
    open.bx = x;
    open.by = y;
    open.minX = Math.min(open.minX, x);
    open.maxX = Math.max(open.maxX, x);
    open.minY = Math.min(open.minY, y);
    open.maxY = Math.max(open.maxY, y);
  }
  return out;
}

function earlierOf(tracks: readonly Stretch[]): number[][] {
  return tracks.map((t, k) =>
    Array.from({ length: k }, (_, j) => j).filter((j) => {
      const u = tracks[j];
      return (
        u.minX <= t.maxX + REACH && u.maxX >= t.minX - REACH && u.minY <= t.maxY + REACH && u.maxY >= t.minY - REACH
      );
    }),
  );
}

/** The same numbers at every run (Lehmer 1951). */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}
