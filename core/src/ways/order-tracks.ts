import Flatbush from 'flatbush';
import type { Track } from '../motion/track.ts';

/** A track’s place in the order, and whether it is gone backwards. */
export interface Placing {
  track: number;
  reversed: boolean;
}

/** Neighbours looked at for each end; more find little and cost time. */
const NEIGHBOURS = 10;

/** So few tracks are put into the best of all orders; each more than doubles the work. */
const MOST_FOR_ALL = 9;

/** Tracks that are cut and joined anew together, over all tries; more tracks are tried less often, and many not at all. */
const TRIED = 1500;
const MOST_FOR_TRIES = 150;

/** Rounds of improvement at most; each stops as soon as a round finds nothing. */
const ROUNDS = 30;

/**
 * Puts tracks into an order with short links: the best of all for a few; else from the start to the nearest, then
 * 2-opt and Or-opt (Croes 1958; Or 1976) over near neighbours until nothing gets shorter, and, unless there are very
 * many, again from the best order so far with two stretches exchanged (Martin, Otto and Felten 1991). The last link leads
 * nowhere: the bit parks.
 *
 * @param start where the bit is before the first, mm.
 * @example two tracks, one ending where the other begins: one after the other, no link between
 */
export function orderTracks(tracks: readonly Track[], start: { x: number; y: number }): Placing[] {
  const n = tracks.length;
  if (n === 0) return [];
  // Ends: 2k is where track k begins, 2k + 1 where it ends.
  const x = new Float64Array(2 * n + 2);
  const y = new Float64Array(2 * n + 2);
  tracks.forEach(({ xyz }, k) => {
    x[2 * k] = xyz[0];
    y[2 * k] = xyz[1];
    x[2 * k + 1] = xyz[xyz.length - 3];
    y[2 * k + 1] = xyz[xyz.length - 2];
  });
  x[2 * n] = x[2 * n + 1] = start.x;
  y[2 * n] = y[2 * n + 1] = start.y;
  // A one-way track that does not end where it began can be entered at its beginning only.
  const fixed = Uint8Array.from(tracks, ({ oneWay, closed }) => (oneWay && !closed ? 1 : 0));
  const tour = n <= MOST_FOR_ALL ? bestOfAll(n, x, y, fixed) : searched(n, x, y, fixed);
  const out: Placing[] = [];
  for (let i = 1; i < tour.length; i++) {
    const track = tour[i] >> 1;
    out.push({ track, reversed: (tour[i] & 1) === 1 && !tracks[track].oneWay });
  }
  return out;
}

/** The shortest tour of all, by dynamic programming over sets of tracks (Held and Karp 1962; Bellman 1962). */
function bestOfAll(n: number, x: Float64Array, y: Float64Array, fixed: Uint8Array): Int32Array {
  const ends = 2 * n;
  const least = new Float64Array((1 << n) * ends).fill(Infinity);
  const from = new Int32Array((1 << n) * ends).fill(-1);
  const way = (a: number, b: number) => Math.sqrt((x[a] - x[b]) ** 2 + (y[a] - y[b]) ** 2);
  const enters = (end: number) => !(end & 1 && fixed[end >> 1]);
  // `least` of a set and an end: the shortest links that cut the set and enter its last track by that end.
  for (let end = 0; end < ends; end++) if (enters(end)) least[(1 << (end >> 1)) * ends + end] = way(2 * n, end);
  for (let set = 1; set < 1 << n; set++)
    for (let last = 0; last < ends; last++) {
      const here = least[set * ends + last];
      if (here === Infinity) continue;
      for (let end = 0; end < ends; end++) {
        if (set & (1 << (end >> 1)) || !enters(end)) continue;
        const next = (set | (1 << (end >> 1))) * ends + end;
        const then = here + way(last ^ 1, end);
        if (then < least[next]) [least[next], from[next]] = [then, last];
      }
    }
  let set = (1 << n) - 1;
  let last = 0;
  for (let end = 1; end < ends; end++) if (least[set * ends + end] < least[set * ends + last]) last = end;
  const tour = new Int32Array(n + 1);
  tour[0] = 2 * n;
  for (let k = n; k >= 1; k--) {
    tour[k] = last;
    const before = from[set * ends + last];
    set &= ~(1 << (last >> 1));
    last = before;
  }
  return tour;
}

/** A tour as the ends by which tracks are entered, the start first. */
function nearestFirst(n: number, x: Float64Array, y: Float64Array, fixed: Uint8Array, index: Flatbush): Int32Array {
  const used = new Uint8Array(n);
  const tour = new Int32Array(n + 1);
  tour[0] = 2 * n;
  let px = x[2 * n];
  let py = y[2 * n];
  for (let k = 1; k <= n; k++) {
    const [end] = index.neighbors(px, py, 1, Infinity, (i) => !used[i >> 1] && !(i & 1 && fixed[i >> 1]));
    used[end >> 1] = 1;
    tour[k] = end;
    px = x[end ^ 1];
    py = y[end ^ 1];
  }
  return tour;
}

function searched(n: number, x: Float64Array, y: Float64Array, fixed: Uint8Array): Int32Array {
  const index = new Flatbush(2 * n);
  for (let i = 0; i < 2 * n; i++) index.add(x[i], y[i], x[i], y[i]);
  index.finish();
  const near = Array.from({ length: 2 * n + 2 }, (_, i) =>
    index.neighbors(x[i], y[i], Math.min(NEIGHBOURS, 2 * n), Infinity, (k) => k >> 1 !== i >> 1),
  );
  const links = (tour: Int32Array) => {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += Math.hypot(x[tour[i] ^ 1] - x[tour[i + 1]], y[tour[i] ^ 1] - y[tour[i + 1]]);
    return sum;
  };
  const best = nearestFirst(n, x, y, fixed, index);
  improve(best, near, x, y, fixed);
  if (n > MOST_FOR_TRIES) return best;
  let least = links(best);
  // Numbers that come again: the same tracks always get the same order (Park and Miller 1988).
  let state = 1;
  const place = () => 1 + ((state = (state * 48_271) % 2_147_483_647) % n);
  for (let tries = Math.floor(TRIED / n); tries > 0; tries--) {
    const [a, b, c] = [place(), place(), place() + 1].sort((p, q) => p - q);
    if (a === b || b === c) continue;
    const tour = best.slice();
    tour.set(best.subarray(b, c), a);
    tour.set(best.subarray(a, b), a + c - b);
    improve(tour, near, x, y, fixed);
    const sum = links(tour);
    if (sum >= least - 1e-9) continue;
    best.set(tour);
    least = sum;
  }
  return best;
}

/** Makes a tour shorter in place; `near` tells of each end which ends of other tracks are nearest to it. */
function improve(
  tour: Int32Array,
  near: readonly (readonly number[])[],
  x: Float64Array,
  y: Float64Array,
  fixed: Uint8Array,
): void {
  const m = tour.length;
  const at = new Int32Array(m);
  const place = () => {
    for (let i = 0; i < m; i++) at[tour[i] >> 1] = i;
  };
  place();
  const distance = (a: number, b: number) => {
    const dx = x[a] - x[b];
    const dy = y[a] - y[b];
    return Math.sqrt(dx * dx + dy * dy);
  };
  /** Length of the link from the track at `i` to the one at `i + 1`; none after the last. */
  const link = (i: number) => (i + 1 < m ? distance(tour[i] ^ 1, tour[i + 1]) : 0);
  /** Turns the stretch from `i` to `j` round, each of its tracks too. */
  const turn = (i: number, j: number) => {
    for (; i < j; i++, j--) {
      const a = tour[i] ^ 1;
      tour[i] = tour[j] ^ 1;
      tour[j] = a;
      at[tour[i] >> 1] = i;
      at[tour[j] >> 1] = j;
    }
    if (i === j) tour[i] ^= 1;
  };
  const anyFixed = fixed.includes(1);
  const turnable = (i: number, j: number) => {
    if (anyFixed) for (let k = i; k <= j; k++) if (fixed[tour[k] >> 1]) return false;
    return true;
  };
  for (let round = 0; round < ROUNDS; round++) {
    let better = false;
    // 2-opt: links (i, i+1) and (j, j+1) become (i, j) and (i+1, j+1), the stretch between turned round.
    for (let i = 0; i + 1 < m; i++) {
      const out = tour[i] ^ 1;
      const now = link(i);
      for (const end of near[out]) {
        const d = distance(out, end);
        if (d >= now) break;
        const j = at[end >> 1];
        // Turned round, the track at j is entered by the end it is now left by.
        if (j <= i || (tour[j] ^ 1) !== end) continue;
        const gain = now + link(j) - d - (j + 1 < m ? distance(tour[i + 1], tour[j + 1]) : 0);
        if (gain > 1e-9 && turnable(i + 1, j)) {
          turn(i + 1, j);
          better = true;
          break;
        }
      }
    }
    // Or-opt: one to three tracks are taken out and put between two neighbours elsewhere, either way round.
    for (let size = 1; size <= 3; size++)
      for (let i = 1; i + size <= m; i++) {
        const j = i + size - 1;
        const first = tour[i];
        const last = tour[j] ^ 1;
        const before = tour[i - 1] ^ 1;
        const freed = link(i - 1) + link(j) - (j + 1 < m ? distance(before, tour[j + 1]) : 0);
        if (freed < 1e-9) continue;
        let best = 1e-9;
        let where = -1;
        let turned = false;
        for (const [head, tail, flip] of [
          [first, last, false],
          [last, first, true],
        ] as const)
          for (const end of near[head]) {
            if (distance(head, end) >= freed) break;
            const k = at[end >> 1];
            // It goes behind a track that is left by this end.
            if ((k >= i && k <= j) || (tour[k] ^ 1) !== end || k === i - 1) continue;
            const gain = freed - distance(end, head) - (k + 1 < m ? distance(tail, tour[k + 1]) - link(k) : 0);
            if (gain > best && (!flip || turnable(i, j))) [best, where, turned] = [gain, k, flip];
          }
        if (where < 0) continue;
        const moved = tour.slice(i, j + 1);
        if (turned) {
          moved.reverse();
          for (let q = 0; q < moved.length; q++) moved[q] ^= 1;
        }
        if (where > j) {
          tour.copyWithin(i, j + 1, where + 1);
          tour.set(moved, where + 1 - size);
        } else {
          tour.copyWithin(where + 1 + size, where + 1, i);
          tour.set(moved, where + 1);
        }
        place();
        better = true;
      }
    if (!better) break;
  }
}
