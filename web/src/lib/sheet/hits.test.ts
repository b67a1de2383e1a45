import { expect, test } from 'vitest';
import { itemView } from '../workers/job-view.ts';
import { Hits } from './hits.ts';

const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const shape = (name: string, points: Float64Array, closed = true) => ({
  name,
  mark: name,
  rule: 'nonzero' as const,
  outlines: [{ points, closed }],
});
const item = itemView({
  id: 'a',
  nodes: { drawn: 0, now: 0, off: 0 },
  notes: [],
  shapes: [
    shape('board', box(0, 0, 200, 100)),
    // An L: most of its box is empty.
    shape('L', Float64Array.of(20, 20, 50, 20, 50, 25, 25, 25, 25, 60, 20, 60)),
    shape('hair', Float64Array.of(100, 20, 100, 80), false),
    shape('dot', box(150, 50, 0.1, 0.1)),
    shape('next to L', box(40, 40, 10, 20)),
  ],
});
const hits = new Hits([item]);
const at = (x: number, y: number, pixel = 0.5) => {
  const hit = hits.at(x, y, pixel);
  return hit && item.shapes[hit.shape].name;
};

test('a click takes the outline that is nearest within a few pixels, then the smallest area that holds the place', () => {
  expect(at(22, 50)).toBe('L');
  expect(at(45, 50)).toBe('next to L');
  expect(at(10, 90)).toBe('board');
  // Within the box of the L, and not in it.
  expect(at(35, 35)).toBe('board');
  expect(at(-20, 50)).toBeUndefined();
});

test('of two rings each is taken at its own line, and between them the one that goes round', () => {
  const ring = (r: number) =>
    Float64Array.from({ length: 120 }, (_, i) => r * (i % 2 ? Math.sin : Math.cos)((Math.floor(i / 2) * Math.PI) / 30));
  const coaster = itemView({
    id: 'c',
    nodes: { drawn: 0, now: 0, off: 0 },
    notes: [],
    shapes: [shape('edge', ring(48)), shape('score', ring(42))],
  });
  const there = (x: number, pixel: number) => coaster.shapes[new Hits([coaster]).at(x, 0, pixel)!.shape].name;
  for (const pixel of [0.1, 0.3, 0.8]) {
    expect(there(42, pixel)).toBe('score');
    expect(there(48, pixel)).toBe('edge');
    expect(there(42 + 2 * pixel, pixel)).toBe('score');
    expect(there(48 - 2 * pixel, pixel)).toBe('edge');
  }
  expect(there(45, 0.1)).toBe('edge');
  expect(there(20, 0.1)).toBe('score');
});

test('a letter is taken in its counter too, and of lines that lie on each other the smaller', () => {
  const o = {
    ...shape('O', box(0, 0, 20, 20)),
    outlines: [
      { points: box(0, 0, 20, 20), closed: true },
      { points: box(5, 5, 10, 10), closed: true },
    ],
  };
  const sheet = itemView({
    id: 'o',
    nodes: { drawn: 0, now: 0, off: 0 },
    notes: [],
    shapes: [
      shape('tray', box(-5, -5, 90, 90)),
      o,
      shape('whole', box(40, 0, 20, 20)),
      shape('half', box(40, 0, 10, 20)),
    ],
  });
  const there = (x: number, y: number) => sheet.shapes[new Hits([sheet]).at(x, y, 0.1)!.shape].name;
  expect(there(10, 10)).toBe('O');
  expect(there(40, 10)).toBe('half');
  expect(there(59.8, 10)).toBe('whole');
});

test('thin and small shapes are caught from some pixels away, as far as they are seen', () => {
  expect(at(102, 50)).toBe('hair');
  expect(at(102, 50, 0.1)).toBe('board');
  expect(at(152, 51)).toBe('dot');
});

test('a box holds whole shapes, a lasso those within it', () => {
  const names = (loop: [number, number][]) =>
    hits.within(loop.map(([x, y]) => ({ x, y }))).map(({ shape }) => item.shapes[shape].name);
  expect(names([[10, 10], [60, 10], [60, 70], [10, 70]])).toEqual(['L', 'next to L']); // prettier-ignore
  expect(names([[38, 38], [60, 38], [60, 70]])).toEqual([]); // prettier-ignore
  expect(names([[140, 40], [160, 40], [150, 60]])).toEqual(['dot']); // prettier-ignore
});

test('arrows go to the next shape in a direction, and stay where there is none', () => {
  const next = (name: string, dx: number, dy: number) => {
    const from = { item: 'a', shape: item.shapes.findIndex((s) => s.name === name) };
    return item.shapes[hits.next(from, dx, dy)!.shape].name;
  };
  expect(next('L', 1, 0)).toBe('next to L');
  expect(next('hair', 1, 0)).toBe('dot');
  expect(next('dot', 1, 0)).toBe('dot');
  expect(hits.next(undefined, 1, 0)).toEqual({ item: 'a', shape: 0 });
  // In the order of the drawing each comes once.
  let at = hits.after(undefined, 0);
  const all = Array.from({ length: 6 }, () => ((at = hits.after(at, 1)), at!.shape));
  expect(all).toEqual([1, 2, 3, 4, 4, 4]);
  expect(hits.after(at, -Infinity)!.shape).toBe(0);
});

test('a sheet without shapes is hit nowhere', () => {
  const none = new Hits([]);
  expect([none.at(1, 1, 1), none.next(undefined, 1, 0), none.within([{ x: 0, y: 0 }])]).toEqual([
    undefined,
    undefined,
    [],
  ]);
});
