import { describe, expect, test } from 'vitest';
import { joinedLines } from './joined-lines.ts';
import { crossedLines } from './crossed-lines.ts';

const line = (...points: number[]) => ({ points: Float64Array.from(points), closed: false });
const runs = (lines: ReturnType<typeof line>[], join = 0) => joinedLines(lines, join, 0, 'crossings');
const length = (points: Float64Array) => {
  let sum = 0;
  for (let i = 2; i < points.length; i += 2)
    sum += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  return sum;
};
const total = (all: { points: Float64Array }[]) => all.reduce((sum, { points }) => sum + length(points), 0);

/** The fewest walks that go over every side of a graph once, by trying all: nothing of the code that is tested. */
function fewestWalks(edges: [number, number][]): number {
  let best = edges.length;
  const used = new Array<boolean>(edges.length).fill(false);
  const go = (at: number | undefined, walks: number, left: number): void => {
    if (walks >= best) return;
    if (left === 0) {
      best = walks;
      return;
    }
    let moved = false;
    if (at !== undefined)
      edges.forEach(([a, b], e) => {
        if (used[e] || (a !== at && b !== at)) return;
        moved = true;
        used[e] = true;
        go(a === at ? b : a, walks, left - 1);
        used[e] = false;
      });
    // A walk that can go on is never better ended for a walk that begins elsewhere, but may have begun elsewhere itself.
    if (at === undefined || !moved)
      edges.forEach(([a, b], e) => {
        if (used[e]) return;
        for (const from of [a, b]) {
          used[e] = true;
          go(from === a ? b : a, walks + 1, left - 1);
          used[e] = false;
        }
      });
  };
  go(undefined, 0, edges.length);
  return best;
}

describe('runs over crossings', () => {
  test('a cross has a point in its middle, and takes two runs', () => {
    const { lines } = crossedLines([line(0, 0, 10, 10), line(0, 10, 10, 0)], 0);
    expect([...lines[0].points]).toEqual([0, 0, 5, 5, 10, 10]);
    expect([...lines[1].points]).toEqual([0, 10, 5, 5, 10, 0]);
    expect(runs([line(0, 0, 10, 10), line(0, 10, 10, 0)])).toHaveLength(2);
  });
  test('an end on another line’s side, or within the join of it, is a place to go over', () => {
    const square = { points: Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10), closed: true };
    // The two T’s are the only odd places: one run.
    expect(joinedLines([square, line(0, 5, 10, 5)], 0, 0, 'crossings')).toHaveLength(1);
    expect(joinedLines([square, line(0.05, 5, 9.95, 5)], 0.1, 0, 'crossings')).toHaveLength(1);
    expect(joinedLines([square, line(0.2, 5, 9.8, 5)], 0.1, 0, 'crossings')).toHaveLength(2);
  });
  test('a lattice is gone over once, with no more lifts than its odd places ask for', () => {
    const lattice = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((k) => [line(0, k, 7, k), line(k, 0, k, 7)]);
    const all = runs(lattice);
    expect(total(all)).toBeCloseTo(16 * 7, 6);
    // Along each of four sides six places where three lines meet: 24 odd ones, so 12 runs.
    expect(all).toHaveLength(12);
  });
  test('odd places against all ways that there are, on random lattices', () => {
    let seed = 5;
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    for (let round = 0; round < 60; round++) {
      const edges: [number, number][] = [];
      for (let x = 0; x < 3; x++)
        for (let y = 0; y < 3; y++) {
          if (x < 2 && random() < 0.6) edges.push([3 * x + y, 3 * (x + 1) + y]);
          if (y < 2 && random() < 0.6) edges.push([3 * x + y, 3 * x + y + 1]);
        }
      if (edges.length === 0 || edges.length > 9) continue;
      const at = (n: number): [number, number] => [10 * Math.floor(n / 3), 10 * (n % 3)];
      const drawn = edges.map(([a, b]) => line(...at(a), ...at(b)));
      const all = runs(drawn);
      expect(all.length, JSON.stringify(edges)).toBe(fewestWalks(edges));
      expect(total(all)).toBeCloseTo(10 * edges.length, 6);
    }
  });
  test('a line drawn twice is gone over twice, and lines that only touch sides keep what they are', () => {
    expect(total(runs([line(0, 0, 10, 0), line(0, 0, 10, 0)]))).toBeCloseTo(20, 9);
    expect(total(runs([line(0, 0, 10, 0), line(2, 0, 8, 0)]))).toBeCloseTo(16, 9);
  });
});
