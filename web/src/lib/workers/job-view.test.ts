import { describe, expect, test } from 'vitest';
import { pathForTests } from '@kerbe/core/motion/path-for-tests';
import type { Lines } from '../sheet/lines.ts';
import { buffersIn, itemView, pathView } from './job-view.ts';

const path = (rows: readonly (readonly [number, number, number, number])[]) =>
  pathForTests(
    rows.flatMap(([x, y, z]) => [x, y, z]),
    rows.map(([, , , f]) => f),
  );
/** Each line as its points in words. */
const told = ({ points, starts, closed }: Lines) =>
  Array.from(closed, (shut, k) => {
    const own = points.subarray(2 * starts[k], 2 * starts[k + 1]);
    return Array.from({ length: own.length / 2 }, (_, i) => `${own[2 * i]},${own[2 * i + 1]}`).join(' ') + (shut ? ' z' : ''); // prettier-ignore
  });

describe('what the sheet draws', () => {
  test('cuts and links are parted where the feed changes', () => {
    const { way, links } = pathView(
      path([
        [0, 0, 5, 0],
        [10, 0, 5, 0],
        [10, 0, -1, 300],
        [20, 0, -1, 1000],
        [20, 10, -1, 1000],
        [20, 10, 5, 0],
        [0, 10, 5, 0],
      ]),
    );
    expect(told(way)).toEqual(['10,0 20,0 20,10']);
    expect(told(links)).toEqual(['0,0 10,0', '20,10 0,10']);
  });
  test('points nearer than a twentieth of a millimetre are left out, but never the end of a cut', () => {
    const rows: [number, number, number, number][] = [[0, 0, -1, 0]];
    for (let k = 1; k <= 100; k++) rows.push([k / 100, 0, -1, 1000]);
    const { way } = pathView(path(rows));
    expect(way.points.length / 2).toBeLessThan(25);
    expect(told(way)[0].endsWith(' 1,0')).toBe(true);
  });
  test('a long way is parted into lines that hold together, so that what is out of sight can be left out', () => {
    const rows: [number, number, number, number][] = [[0, 0, -1, 0]];
    for (let k = 1; k <= 1000; k++) rows.push([k, 0, -1, 1000]);
    const { way } = pathView(path(rows));
    expect(told(way).map((line) => line.split(' ').length)).toEqual([400, 400, 203]);
    expect(way.boxes.subarray(4, 8)).toEqual(Float32Array.of(399, 0, 798, 0));
  });
  test('an item’s shapes are ranges of its lines, with what they belong to', () => {
    const view = itemView({
      id: 'a',
      nodes: { drawn: 7, now: 7, off: 0 },
      notes: ['a note'],
      shapes: [
        {
          name: 'two',
          mark: 'id:two',
          rule: 'evenodd',
          colour: 'red',
          outlines: [
            { points: Float64Array.of(0, 0, 10.125, 0, 10, 5), closed: true },
            { points: Float64Array.of(1, 1, 2, 2), closed: false },
          ],
        },
        { name: 'I', mark: 'letter:1:I', rule: 'nonzero', line: 0, word: 0, outlines: [] },
      ],
    });
    expect(view.shapes).toMatchObject([
      { name: 'two', mark: 'id:two', rule: 'evenodd', open: true, from: 0, to: 2, width: 10.125, height: 5, outlines: 2, colour: 'red' }, // prettier-ignore
      { name: 'I', open: false, from: 2, to: 2, line: 0, word: 0, width: 0 },
    ]);
    expect(told(view.lines)).toEqual(['0,0 10.125,0 10,5 z', '1,1 2,2']);
    const part = { way: view.lines, links: view.lines, marks: [] };
    expect(buffersIn({ cuts: [part] } as unknown as Parameters<typeof buffersIn>[0])).toHaveLength(8);
  });
});
