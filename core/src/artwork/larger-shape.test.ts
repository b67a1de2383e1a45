import { expect, test } from 'vitest';
import type { Job } from '../document/job.ts';
import { scaledArtwork } from './artwork-scale.ts';
import { largerShape } from './larger-shape.ts';
import type { Shape } from './shape.ts';

test('a shape grows about the middle of its box, wherever that lies', () => {
  const points = Float64Array.of(10, 40, 30, 40, 30, 50, 10, 50);
  const shape = { outlines: [{ points, closed: true }] } as unknown as Shape;
  expect([...largerShape(shape, 1.5).outlines[0].points]).toEqual([5, 37.5, 35, 37.5, 35, 52.5, 5, 52.5]);
  expect([...points.slice(0, 2)]).toEqual([10, 40]);
  const empty = { outlines: [] } as unknown as Shape;
  expect(largerShape(empty, 2)).toBe(empty);
});

test('all artwork grows about the middle of the stock, each item by what says its size', () => {
  const job = {
    stock: { length: 300, width: 100 },
    artwork: [
      { kind: 'drawing', x: 50, y: 80, scaleX: 2, scaleY: -1 },
      { kind: 'lettering', x: 150, y: 50, capHeight: 20 },
    ],
  } as unknown as Job;
  expect(scaledArtwork(job, 0.5).map(({ path, value }: { path: string; value?: unknown }) => [path, value])).toEqual([
    ['/artwork/0/x', 100],
    ['/artwork/0/y', 65],
    ['/artwork/0/scaleX', 1],
    ['/artwork/0/scaleY', -0.5],
    ['/artwork/1/x', 150],
    ['/artwork/1/y', 50],
    ['/artwork/1/capHeight', 10],
  ]);
});
