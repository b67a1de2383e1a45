import { expect, test } from 'vitest';
import type { InlayCut } from '../cuts/inlay/fields.ts';
import type { PocketCut } from '../cuts/pocket/fields.ts';
import type { ProfileCut } from '../cuts/profile/fields.ts';
import type { Track } from '../motion/track.ts';
import { grooveRoute } from '../ways/groove-route.ts';
import { orderParts } from './order.ts';
import { CUT_KINDS } from '../cuts/kinds.ts';
import { orderTracks } from '../ways/order-tracks.ts';

/** Numbers from 0 to 1 that come again (Park and Miller 1988). */
function dice(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

test('a recess is cut among the pockets, its part among what is cut out', () => {
  const inlay = (role: string) => CUT_KINDS.inlay.rank({ role } as InlayCut);
  const outside = CUT_KINDS.profile.rank({ side: 'outside' } as ProfileCut);
  expect(inlay('recess')).toBe(CUT_KINDS.pocket.rank({} as PocketCut));
  expect(inlay('recess')).toBeLessThan(CUT_KINDS.profile.rank({ side: 'inside' } as ProfileCut));
  expect(inlay('part')).toBe(outside);
});

test('among equals the bit that is in goes on', () => {
  const parts = ['a', 'b', 'a', 'b'].map((bit, k) => ({ bit, rank: 2, k }));
  expect(orderParts(parts).map(({ bit }) => bit)).toEqual(['a', 'a', 'b', 'b']);
});

test('no bit that is in brings a later cut forward', () => {
  const parts = [{ rank: 4, bit: 'a' }, { rank: 3, bit: 'b' }, { rank: 2, bit: 'a' }]; // prettier-ignore
  expect(orderParts(parts).map(({ rank }) => rank)).toEqual([2, 3, 4]);
});

test('rings that have a direction are never gone backwards, few or many, though either end would do', () => {
  for (const n of [6, 40]) {
    const rng = dice(n);
    const tracks = Array.from({ length: n }, (): Track => {
      const [x, y] = [rng() * 100, rng() * 100];
      return { xyz: Float64Array.of(x, y, 0, x + 1, y, 0, x, y + 1, 0, x, y, 0), closed: true, ring: 0, oneWay: true };
    });
    expect(orderTracks(tracks, { x: 0, y: 0 }).filter(({ reversed }) => reversed)).toEqual([]);
    // And open strokes that may be turned are, some of them: the look above can fail.
    const free = tracks.map((track) => ({ ...track, closed: false, oneWay: false, xyz: track.xyz.slice(0, 6) }));
    expect(orderTracks(free, { x: 0, y: 0 }).some(({ reversed }) => reversed)).toBe(true);
  }
});

/** Links of the shortest tour over tracks that may each be gone either way, or not (Held and Karp 1962). */
function shortest(tracks: readonly Track[]): number {
  const n = tracks.length;
  const ends = tracks.map(({ xyz, oneWay }) => [
    { in: [xyz[0], xyz[1]], out: [xyz[3], xyz[4]] },
    ...(oneWay ? [] : [{ in: [xyz[3], xyz[4]], out: [xyz[0], xyz[1]] }]),
  ]);
  const known = new Map<string, number>();
  const rest = (set: number, at: number[]): number => {
    if (set === (1 << n) - 1) return 0;
    const key = `${set} ${at}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    let value = Infinity;
    for (let k = 0; k < n; k++)
      if (!(set & (1 << k)))
        for (const way of ends[k])
          value = Math.min(value, Math.hypot(way.in[0] - at[0], way.in[1] - at[1]) + rest(set | (1 << k), way.out));
    known.set(key, value);
    return value;
  };
  return rest(0, [0, 0]);
}

test.each([true, false])('ten tracks (one-way: %s) come nearly as short as the best of all orders', (oneWay) => {
  let [all, least] = [0, 0];
  for (let seed = 1; seed <= 25; seed++) {
    const rng = dice(seed);
    const tracks = Array.from({ length: 10 }, (): Track => {
      const [x, y, a] = [rng() * 100, rng() * 100, rng() * 7];
      return {
        xyz: Float64Array.of(x, y, 0, x + 40 * Math.cos(a), y + 40 * Math.sin(a), 0),
        closed: false,
        ring: 0,
        oneWay,
      };
    });
    const order = orderTracks(tracks, { x: 0, y: 0 });
    if (oneWay) expect(order.every(({ reversed }) => !reversed)).toBe(true);
    let [x, y, made] = [0, 0, 0];
    for (const { track, reversed } of order) {
      const [ax, ay, , bx, by] = tracks[track].xyz;
      made += reversed ? Math.hypot(bx - x, by - y) : Math.hypot(ax - x, ay - y);
      [x, y] = reversed ? [ax, ay] : [bx, by];
    }
    const best = shortest(tracks);
    expect(made).toBeLessThan(1.5 * best);
    all += made;
    least += best;
  }
  // Nine of ten are the best of all; a search that misjudges a turn or an exchange finds fewer.
  expect(all).toBeLessThan(1.0025 * least);
});

test.each([9, 11, 13])('a field of %i dots a side is gone over in single steps', (side) => {
  const dots = Array.from({ length: side * side }, (_, k): Track => {
    const at = (k * 37) % (side * side);
    return { xyz: Float64Array.of(at % side, Math.floor(at / side), 0), closed: true, ring: 0, oneWay: true };
  });
  let [x, y, sum] = [0, 0, 0];
  for (const { track } of orderTracks(dots, { x: 0, y: 0 })) {
    sum += Math.hypot(dots[track].xyz[0] - x, dots[track].xyz[1] - y);
    [x, y] = dots[track].xyz;
  }
  expect(sum).toBeLessThan(1.04 * (side * side - 1));
});

test('walks over small graphs cost no more than the best pairing of their odd nodes, by brute force', () => {
  let [all, least] = [0, 0];
  for (let seed = 1; seed <= 60; seed++) {
    const rng = dice(seed * 31);
    const nodes = 14;
    const edges: number[] = [];
    const length: number[] = [];
    // A tree, so that all hangs together, and some more.
    for (let k = 1; k < nodes; k++) edges.push(Math.floor(rng() * k), k);
    for (let k = 0; k < 4; k++) {
      const [a, b] = [Math.floor(rng() * nodes), Math.floor(rng() * nodes)];
      const there = edges.some((end, i) => i % 2 === 0 && ((end === a && edges[i + 1] === b) || (end === b && edges[i + 1] === a)));
      if (a !== b && !there) edges.push(a, b);
    }
    for (let e = 0; e < edges.length / 2; e++) length.push(1 + Math.floor(rng() * 20));
    const lift = 4 + rng() * 30;
    const walks = grooveRoute(nodes, Uint32Array.from(edges), Float64Array.from(length), lift);
    const way = Array.from({ length: nodes }, (_, a) => Array.from({ length: nodes }, (_, b) => (a === b ? 0 : Infinity)));
    length.forEach((l, e) => {
      const [a, b] = [edges[2 * e], edges[2 * e + 1]];
      way[a][b] = way[b][a] = Math.min(way[a][b], l);
    });
    const direct = way.map((row) => [...row]);
    for (let k = 0; k < nodes; k++)
      for (let a = 0; a < nodes; a++) for (let b = 0; b < nodes; b++) way[a][b] = Math.min(way[a][b], way[a][k] + way[k][b]);
    const odd = way.flatMap((_, n) => (edges.filter((end) => end === n).length % 2 ? [n] : []));
    // Paired nodes cost the way between them again; the loose ones a walk for every two, of which the first is free.
    const best = (rest: readonly number[], loose: number): number => {
      if (rest.length === 0) return lift * Math.max(0, loose / 2 - 1);
      const [a, ...others] = rest;
      let value = best(others, loose + 1);
      others.forEach((b, k) => (value = Math.min(value, way[a][b] + best(others.filter((_, j) => j !== k), loose)))); // prettier-ignore
      return value;
    };
    const whole = length.reduce((sum, l) => sum + l, 0);
    const walked = walks.reduce((sum, walk) => {
      for (let i = 1; i < walk.length; i++) sum += direct[walk[i - 1]][walk[i]];
      return sum;
    }, 0);
    all += walked - whole + lift * (walks.length - 1);
    least += best(odd, 0);
  }
  expect(all).toBeLessThan(1.003 * least);
}); // prettier-ignore
