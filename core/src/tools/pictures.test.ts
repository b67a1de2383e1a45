import { expect, test } from 'vitest';
import { dragPicture } from './drag/picture.ts';
import { nozzlePicture } from './nozzle/picture.ts';
import { ToolSchema } from './tool-schema.ts';
import type { DragPoint } from './drag/fields.ts';
import type { Nozzle } from './nozzle/fields.ts';

const of = ({ parts }: ReturnType<typeof dragPicture>, look: string) =>
  parts.filter((part) => part.look === look).map(({ points }) => points);
const reach = (points: readonly (readonly number[])[], axis: 0 | 1) => {
  const all = points.map((point) => point[axis]);
  return [Math.min(...all), Math.max(...all)];
};

test.each([0, 1.5])('a drag point pressed by %f mm: its spring fills what is left between stem and body', (pressed) => {
  const point = ToolSchema.parse({ id: 'p', name: 'D', kind: 'drag', diameter: 8, angle: 90, width: 0.3, travel: 3, shank: 6, presets: [] }) as DragPoint; // prettier-ignore
  const picture = dragPicture(point, pressed);
  const [[...shank], body] = of(picture, 'shank');
  const [stem] = of(picture, 'cutter');
  const [spring] = of(picture, 'line');
  expect(reach(spring, 1)[0]).toBeCloseTo(reach(stem, 1)[1], 9);
  expect(reach(spring, 1)[1]).toBeCloseTo(reach(shank, 1)[0], 9);
  expect(reach(body, 1)[1]).toBeCloseTo(reach(shank, 1)[0], 9);
  expect(reach(body, 0)).toEqual([-4, 4]);
  expect(reach(shank, 0)).toEqual([-3, 3]);
  // Its turns lie evenly: what is left of 3 / 0.7 mm.
  const step = (3 / 0.7 - pressed) / 10;
  spring.forEach(([x, y], k) => {
    expect(Math.abs(x)).toBeCloseTo(0.7 * 4, 9);
    if (k) expect(y - spring[k - 1][1]).toBeCloseTo(step, 9);
    if (k) expect(x).toBeCloseTo(-spring[k - 1][0], 9);
  });
  // A point of 90° whose stem is half as wide as the body.
  expect(stem).toContainEqual([2, expect.closeTo(2, 9)]);
});

test('a nozzle ends where its torch begins, is as wide as it is, and its mouth about as wide as a kerf', () => {
  const nozzle = ToolSchema.parse({ id: 'n', name: 'N', kind: 'nozzle', diameter: 12, shank: 32, amps: 45, presets: [] }) as Nozzle; // prettier-ignore
  const picture = nozzlePicture(nozzle);
  const [torch] = of(picture, 'shank');
  const [body] = of(picture, 'cutter');
  expect(reach(torch, 1)[0]).toBeCloseTo(reach(body, 1)[1], 9);
  expect(reach(torch, 0)).toEqual([-16, 16]);
  expect(reach(body, 0)).toEqual([-6, 6]);
  expect(reach(body.filter(([, y]) => y === 0), 0)).toEqual([-0.7, 0.7]); // prettier-ignore
});
