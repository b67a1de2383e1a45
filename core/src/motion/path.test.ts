import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { joinPaths, measurePath, movesOf, type Path, pathAlong, PathBuilder } from './path.ts';
import { piercingMoved } from './piercing.ts';
import { TooManyMoves } from './too-many-moves.ts';

/**
 * Promises held here: a builder gives back every move it was given, but for those that go nowhere, also past the room it began
 * with; what is measured of a path is what its moves add up to, stretch by stretch where power changes along them; paths that
 * are joined are the same moves one after the other; a piercing that has moved speaks of the same places.
 */
interface Move {
  to: readonly [number, number, number];
  kind: 'rapid' | 'feed' | 'shaded';
  feed: number;
  /** Shares of the move, and the power along each. */
  parts: readonly (readonly [number, number])[];
}
const whole = (min: number, max: number) => fc.integer({ min, max });
const move: fc.Arbitrary<Move> = fc.record({
  to: fc.tuple(whole(-90, 90), whole(-50, 50), whole(-7, 9)),
  kind: fc.constantFrom('rapid', 'feed', 'shaded'),
  feed: whole(100, 3000),
  parts: fc.array(fc.tuple(whole(1, 9), fc.constantFrom(0, 0, 0.25, 0.75)), { minLength: 1, maxLength: 5 }),
});
const moves = fc.array(move, { minLength: 1, maxLength: 12 });

const far = (a: Move['to'], b: Move['to']) => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
const goes = (list: readonly Move[]) => list.filter(({ to }, k) => k === 0 || far(list[k - 1].to, to) > 0);

function shadeOf(parts: Move['parts'], length: number) {
  const all = parts.reduce((sum, [share]) => sum + share, 0);
  let at = 0;
  return {
    ends: Float64Array.from(parts, ([share]) => ((at += share) / all) * length),
    power: Float32Array.from(parts, ([, power]) => power),
  };
}
function built(list: readonly Move[]): Path {
  const path = new PathBuilder();
  list.forEach(({ to, kind, feed, parts }, k) => {
    if (kind === 'rapid') path.rapid(...to);
    else if (kind === 'feed' || k === 0) path.to(...to, feed);
    else path.shaded(...to, feed, shadeOf(parts, far(list[k - 1].to, to)));
  });
  return path.done();
}
/** How far along a move its power is on. */
const burnt = ({ kind, parts }: Move, length: number) => {
  if (kind !== 'shaded') return kind === 'feed' ? length : 0;
  const all = parts.reduce((sum, [share]) => sum + share, 0);
  return parts.reduce((sum, [share, power]) => sum + (power > 0 ? (share / all) * length : 0), 0);
};

describe('a path', () => {
  test('holds the moves it was given', () => {
    fc.assert(
      fc.property(moves, (list) => {
        const kept = goes(list);
        const path = built(list);
        expect([...path.xyz]).toEqual(kept.flatMap(({ to }) => to));
        expect([...path.rapid]).toEqual(kept.map(({ kind }) => Number(kind === 'rapid')));
        expect([...path.feed]).toEqual(kept.map(({ kind, feed }) => (kind === 'rapid' ? 0 : feed)));
        const shaded = kept.flatMap(({ kind }, k) => (kind === 'shaded' && k > 0 ? [k] : []));
        expect([...(path.shades?.keys() ?? [])]).toEqual(shaded);
        expect('shades' in path).toBe(shaded.length > 0);
        for (const k of shaded) expect(path.power[k]).toBe(Math.max(...kept[k].parts.map(([, power]) => power)));
      }),
    );
  });

  test('past the room it began with', () => {
    const path = new PathBuilder();
    for (let k = 0; k < 5000; k++) path.to(k, 2 * k, -k, 100 + k, (k % 7) / 8);
    const { xyz, feed, rapid, power } = path.done();
    expect([path.length, path.x, path.y, path.z]).toEqual([5000, 4999, 9998, -4999]);
    for (const k of [0, 1023, 1024, 2047, 2048, 4999])
      expect([...xyz.slice(3 * k, 3 * k + 3), feed[k], rapid[k], power[k]]).toEqual([
        k,
        2 * k,
        -k,
        100 + k,
        0,
        (k % 7) / 8,
      ]);
  });

  test('says how many moves are too many', () => {
    const path = new PathBuilder(1024);
    for (let k = 0; k < 1024; k++) path.to(k, 0, 0, 100);
    expect(() => path.to(-1, 0, 0, 100)).toThrow(TooManyMoves);
    expect(() => path.to(-1, 0, 0, 100)).toThrow('more than 3 million moves');
  });

  test('is measured stretch by stretch', () => {
    fc.assert(
      fc.property(moves, (list) => {
        const kept = goes(list);
        // The first point is a place, and no move.
        const on = kept.map((one, k) => (k ? burnt(one, far(kept[k - 1].to, one.to)) : 0));
        const all = kept.map(({ to }, k) => (k ? far(kept[k - 1].to, to) : 0));
        const powered = kept.map(
          (one, k) =>
            one.kind === 'feed' || (one.kind === 'shaded' && (k === 0 || one.parts.some(([, power]) => power > 0))),
        );
        const sum = (values: number[]) => values.reduce((a, b) => a + b, 0);
        const { cut, link, lowest, lifts } = measurePath(built(list));
        expect(cut).toBeCloseTo(sum(on), 9);
        expect(cut + link).toBeCloseTo(sum(all), 9);
        expect(lowest).toBe(Math.min(0, ...kept.filter((_, k) => powered[k]).map(({ to }) => to[2])));
        const begins = powered.filter((is, k) => is && k > 0 && !powered[k - 1]).length;
        expect(lifts).toBe(Math.max(0, begins - 1));
        const stretches = kept.map(({ kind, parts }, k) => (k === 0 ? 0 : kind === 'shaded' ? parts.length : 1));
        expect(movesOf(built(list))).toBe(sum(stretches));
      }),
    );
  });

  test('joined to others is the same moves', () => {
    fc.assert(
      fc.property(fc.array(moves, { maxLength: 4 }), (lists) => {
        const paths = lists.map(built);
        const joined = joinPaths(paths);
        for (const name of ['xyz', 'feed', 'rapid', 'power'] as const)
          expect([...joined[name]]).toEqual(paths.flatMap((path) => [...path[name]]));
        let at = 0;
        const shades = paths.flatMap((path) => {
          const here = [...(path.shades ?? [])].map(([point, shade]) => [at + point, shade] as const);
          at += path.feed.length;
          return here;
        });
        expect([...(joined.shades ?? [])]).toEqual(shades);
        expect('shades' in joined).toBe(shades.length > 0);
      }),
    );
  });

  test('along points is all of one kind', () => {
    const xyz = Float64Array.of(0, 1, 2, 3, 5, 8);
    expect(pathAlong(xyz, 700)).toEqual({
      xyz,
      feed: Float64Array.of(700, 700),
      rapid: Uint8Array.of(0, 0),
      power: Float32Array.of(1, 1),
    });
    expect(pathAlong(xyz)).toEqual({
      xyz,
      feed: Float64Array.of(0, 0),
      rapid: Uint8Array.of(1, 1),
      power: Float32Array.of(0, 0),
    });
  });
});

test('a piercing whose path has become another speaks of the same places', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(whole(0, 60), { minLength: 4, maxLength: 20 }),
      whole(0, 60),
      whole(1, 9),
      ([a, b, c, ...more], gone, by) => {
        const piercing = {
          delay: 0.4,
          touches: [a, ...more],
          level: [b, a],
          beside: [c],
          frees: more.map((point, k) => ({ point, before: k / 4 })),
          scrapOnLeft: more.length % 2 > 0,
        };
        const now = (point: number) => (point === gone ? undefined : point + by);
        const there = (points: readonly number[]) =>
          points.filter((point) => point !== gone).map((point) => point + by);
        expect(piercingMoved(piercing, now)).toEqual({
          delay: 0.4,
          scrapOnLeft: piercing.scrapOnLeft,
          touches: there(piercing.touches),
          level: there(piercing.level),
          beside: there(piercing.beside),
          frees: piercing.frees
            .filter(({ point }) => point !== gone)
            .map(({ point, before }) => ({ point: point + by, before })),
        });
      },
    ),
  );
});
