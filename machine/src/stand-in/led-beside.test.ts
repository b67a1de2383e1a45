import { describe, expect, test } from 'vitest';
import { LedBeside } from './led-beside.ts';
import type { Place } from './reader.ts';

/** Where a tool goes that is led beside a way from its first point on. */
function led(off: number, way: readonly [x: number, y: number][]): Place[] {
  const beside = new LedBeside();
  const at = (k: number) => ({ x: way[k][0], y: way[k][1], z: 0 });
  beside.lead(off, at(0));
  const out = [at(0)];
  way.forEach((_, k) => {
    if (k > 0) out.push(...beside.take({ to: at(k), feed: 100, line: k, power: 0 }).map(({ to }) => to));
  });
  return [...out, ...beside.rest().map(({ to }) => to)];
}

/** How far a place lies from a stretch. */
function beside({ x, y }: Place, [ax, ay]: readonly number[], [bx, by]: readonly number[]): number {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

const places = (all: readonly Place[]) => all.map(({ x, y }) => [Number(x.toFixed(6)), Number(y.toFixed(6))]);
const ring = (r: number, turn: 1 | -1, n = 720): [number, number][] =>
  Array.from({ length: n + 1 }, (_, k) => [r * Math.cos((turn * 2 * Math.PI * k) / n), r * Math.sin((turn * 2 * Math.PI * k) / n)]); // prettier-ignore
const furthest = (all: readonly Place[]) => all.map(({ x, y }) => Math.hypot(x, y));

describe('a tool led beside its way', () => {
  test('swings out on the first move, stops short where the sides of an inner corner meet, and goes back along nothing', () => {
    // To the left of a way that turns left: the corner at (10, 0) lies inside.
    expect(places(led(1, [[0, 0], [10, 0], [10, 10]]))).toEqual([[0, 0], [9, 1], [9, 10]]); // prettier-ignore
  });

  test('goes round an outer corner at its distance', () => {
    const out = led(-1, [[0, 0], [10, 0], [10, 10]]); // prettier-ignore
    expect(places(out.slice(0, 2))).toEqual([[0, 0], [10, -1]]); // prettier-ignore
    const corner = out.slice(1, -1);
    expect(corner.length).toBeGreaterThan(10);
    for (const { x, y } of corner) expect(Math.hypot(x - 10, y)).toBeCloseTo(1, 9);
    expect(places(out.slice(-2))).toEqual([[11, 0], [11, 10]]); // prettier-ignore
  });

  test('a circle in chords has its radius more or less by the distance', () => {
    const swung = 3;
    for (const [off, radius] of [
      [-1, 21],
      [1, 19],
    ]) {
      // prettier-ignore
      const all = furthest(led(off, ring(20, 1))).slice(swung, -1);
      expect(Math.max(...all)).toBeLessThan(radius + 0.001);
      expect(Math.min(...all)).toBeGreaterThan(radius - 0.002);
    }
  });

  test('stretches shorter than an inner corner cuts away are left out', () => {
    // A slanting way of many short stretches meets a wall at a right angle: 0.1 mm each, 1 mm beside.
    const slope: [number, number][] = Array.from({ length: 50 }, (_, k) => [10, k * 0.1]);
    const out = led(1, [[0, 0], [10, 0], ...slope.slice(1)]); // prettier-ignore
    for (const { x, y } of out.slice(1)) expect(x <= 9 + 1e-6 && y >= 1 - 1e-6).toBe(true);
    expect(places(out.slice(-1))).toEqual([[9, 4.9]]);
  });

  test('also where the way bends the other way right behind the inner corner, and where it ends there', () => {
    // Down, round a sharp inner corner, and on along chords that turn to the right.
    const way: [number, number][] = [[0, 3.3], [0, 0], [0.05, -0.011], [0.418, -0.109], [0.771, -0.221], [3, -1.2]]; // prettier-ignore
    const away = (out: Place[]) => Math.min(...out.slice(1).flatMap((at) => way.slice(1).map((_, k) => beside(at, way[k], way[k + 1])))); // prettier-ignore
    expect(away(led(0.5, way))).toBeGreaterThan(0.499);
    const ended = led(0.5, way.slice(0, 3));
    expect(ended.at(-1)!.x).toBeCloseTo(0.5, 9);
    expect(away(ended)).toBeGreaterThan(0.499);
  });

  test('a circle that it does not fit into is refused', () => {
    expect(() => led(1, [[-30, 0], ...ring(0.5, 1, 90)])).toThrow(/does not fit into a corner/);
  });

  test('up and down it stays where it is, and without being led it goes where it is told', () => {
    const beside = new LedBeside();
    const move = (x: number, y: number, z: number) => ({ to: { x, y, z }, feed: 100, line: 1, power: 0 });
    expect(beside.take(move(5, 5, 5))).toEqual([move(5, 5, 5)]);
    beside.lead(2, { x: 0, y: 0, z: 0 });
    expect(beside.take(move(10, 0, 0))).toEqual([]);
    expect(beside.keptBack).toBe(1);
    expect(beside.take(move(10, 0, 7))).toEqual([move(10, 2, 0), move(10, 2, 7)]);
    beside.forget();
    expect(beside.take(move(0, 0, 0))).toEqual([move(0, 0, 0)]);
  });
});
