import { describe, expect, test } from 'vitest';
import { joinedLines, type Run } from './joined-lines.ts';

const open = (...points: number[]) => ({ points, closed: false });
const closed = (...points: number[]) => ({ points, closed: true });
const lengthOf = ({ points }: Run) => {
  let sum = 0;
  for (let i = 2; i < points.length; i += 2)
    sum += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  return sum;
};
const total = (runs: readonly Run[]) => runs.reduce((sum, run) => sum + lengthOf(run), 0);

describe('lines are joined into runs', () => {
  test('a line alone, a loop alone: as long as they are', () => {
    const runs = joinedLines([open(0, 0, 30, 40), closed(0, 0, 10, 0, 10, 10, 0, 10)], 0, 20);
    expect(runs.map(({ closed: ring }) => ring).sort()).toEqual([false, true]);
    expect(total(runs)).toBeCloseTo(50 + 40, 9);
  });
  test('ends within the distance are joined by the shortest bridge, those beyond it are not', () => {
    const lines = [open(0, 0, 10, 0), open(10.15, 0, 20, 0), open(20.3, 0, 30, 0)];
    const near = joinedLines(lines, 0.2, 20);
    expect(near).toHaveLength(2);
    expect(total(near)).toBeCloseTo(10 + 9.85 + 9.7 + 0.15, 9);
    expect(joinedLines(lines, 0.31, 20)).toHaveLength(1);
    expect(joinedLines(lines, 0, 20)).toHaveLength(3);
  });
  test('loops that come within the distance of each other are one run, those beyond it are not', () => {
    const square = (x: number) => closed(x, 0, x + 10, 0, x + 10, 10, x, 10);
    const loops = [square(0), square(10.3), square(20.9)];
    const near = joinedLines(loops, 0.4, 20);
    expect(near).toHaveLength(2);
    // The bridge is gone over once: it begins and ends where the loops do.
    expect(total(near)).toBeCloseTo(3 * 40 + 0.3, 6);
    expect(joinedLines(loops, 0.7, 20)).toHaveLength(1);
    expect(joinedLines(loops, 0.2, 20)).toHaveLength(3);
    expect(joinedLines(loops, 0, 20)).toHaveLength(3);
    // Nearest in the middle of their sides, and one in the other.
    const turned = [closed(0, 0, 10, 0, 10, 10, 0, 10), closed(10.2, 5, 15, 0, 20, 5, 15, 10)];
    expect(joinedLines(turned, 0.25, 20)).toHaveLength(1);
    expect(joinedLines([square(0), closed(0.3, 0.3, 9.7, 0.3, 9.7, 9.7, 0.3, 9.7)], 0.4, 20)).toHaveLength(1);
  });
  test('a line whose own ends nearly touch becomes a loop', () => {
    const [run, ...more] = joinedLines([open(0, 0, 10, 0, 10, 10, 0.1, 0.1)], 0.2, 20);
    expect([more.length, run.closed]).toEqual([0, true]);
  });
  // A graph with 2k odd nodes takes k walks and no fewer (Euler 1736).
  test('four arms that meet in a point are two runs, three are two, where going twice is dear', () => {
    const arms = (n: number) =>
      Array.from({ length: n }, (_, k) =>
        open(0, 0, 50 * Math.cos((2 * Math.PI * k) / n), 50 * Math.sin((2 * Math.PI * k) / n)),
      );
    for (const n of [3, 4, 5, 6]) {
      const runs = joinedLines(arms(n), 0, 5);
      expect(runs).toHaveLength(Math.ceil(n / 2));
      expect(total(runs)).toBeCloseTo(50 * n, 6);
    }
  });
  test('a short arm is gone over twice where that is cheaper than a lift', () => {
    const runs = joinedLines([open(-50, 0, 0, 0), open(0, 0, 50, 0), open(0, 0, 0, 2)], 0, 30);
    expect(runs).toHaveLength(1);
    expect(total(runs)).toBeCloseTo(104, 6);
  });
  test('points, lines of no length and nothing at all are no runs', () => {
    expect(joinedLines([open(3, 4), open(1, 1, 1, 1), closed(2, 2)], 0.5, 20)).toEqual([]);
    expect(joinedLines([], 0.5, 20)).toEqual([]);
  });
  test('a thousand lines in a row become one run in little time', () => {
    const lines = Array.from({ length: 1000 }, (_, k) => (k % 2 ? open(k + 1, 0, k, 0) : open(k, 0, k + 1, 0)));
    expect(joinedLines(lines, 0.01, 20)).toHaveLength(1);
  });
});
