import { describe, expect, test } from 'vitest';
import { circleData, itemView, pathView } from './job-view.ts';
import { pathForTests } from '@kerbe/core/motion/path-for-tests';

const path = (rows: readonly (readonly [number, number, number, number])[]) =>
  pathForTests(
    rows.flatMap(([x, y, z]) => [x, y, z]),
    rows.map(([, , , f]) => f),
  );

describe('what the sheet draws', () => {
  test('cuts and links are parted where the feed changes', () => {
    const { cutPath, linkPath } = pathView(
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
    expect(cutPath).toBe('M10 0L20 0L20 10');
    expect(linkPath).toBe('M0 0L10 0M20 10L0 10');
  });
  test('points nearer than a twentieth of a millimetre are left out, but never the end of a cut', () => {
    const rows: [number, number, number, number][] = [[0, 0, -1, 0]];
    for (let k = 1; k <= 100; k++) rows.push([k / 100, 0, -1, 1000]);
    const { cutPath } = pathView(path(rows));
    expect(cutPath.split('L').length - 1).toBeLessThan(25);
    expect(cutPath.endsWith('L1 0')).toBe(true);
  });
  test('a hole is a closed circle of two halves', () => {
    expect(circleData(10, 20, 1.5)).toBe('M8.5 20a1.5 1.5 0 1 0 3 0a1.5 1.5 0 1 0 -3 0z');
  });
  test('an item’s shapes come as closed and open path data to a micrometre', () => {
    const view = itemView({
      id: 'a',
      nodes: { drawn: 7, now: 7, off: 0 },
      notes: ['a note'],
      shapes: [
        {
          name: 'two',
          mark: 'id:two',
          rule: 'evenodd',
          outlines: [
            { points: Float64Array.of(0, 0, 10.12345, 0, 10, 5), closed: true },
            { points: Float64Array.of(1, 1, 2, 2), closed: false },
          ],
        },
      ],
    });
    expect(view.shapes).toEqual([
      { name: 'two', mark: 'id:two', rule: 'evenodd', open: true, d: 'M0 0L10.123 0L10 5zM1 1L2 2' },
    ]);
    expect(view.notes).toEqual(['a note']);
    expect(view.nodes.drawn).toBe(7);
  });
});
