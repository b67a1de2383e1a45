import { expect, test } from 'vitest';
import { FACE_FILES } from '../core/src/artwork/faces.ts';
import { placeItem } from '../core/src/artwork/place.ts';
import { type Face, ItemSchema } from '../core/src/document/item.ts';
import { coveredBy } from '../core/src/geometry/outline.ts';
import { resourcesFromDisk } from '../machine/src/core-from-disk.ts';

test('a sign that the face lacks is left out with its place kept, and said; of nothing but such signs nothing is made', async () => {
  const resources = await resourcesFromDisk(() => undefined);
  const lettered = (text: string) =>
    placeItem(
      ItemSchema.parse({ id: 'l', kind: 'lettering', name: 'L', face: 'josefin', text, capHeight: 20, tracking: 0, leading: 1.4, align: 'left', x: 0, y: 0, rotation: 0 }),
      resources,
    ); // prettier-ignore
  const whole = lettered('AB');
  const lacking = lettered('A☃B');
  expect(lacking.shapes.map(({ name }) => name)).toEqual(['A', 'B']);
  expect(lacking.bounds!.maxX).toBeGreaterThan(whole.bounds!.maxX + 1);
  expect(lacking.notes).toEqual([
    'The face has no “☃” (line 1, sign 2); left out, with the place kept. Choose another face or letter.',
  ]);
  expect(lettered('☃').problem).toMatch(/none of these signs: “☃” \(line 1, sign 1\)/);
});

test.each(Object.keys(FACE_FILES) as Face[])(
  'a line along a letter of %s goes round its strokes, and not through them',
  async (face) => {
    const resources = await resourcesFromDisk(() => undefined);
    const text = 'AMKWXRae&8\nÅøŽß#@\n«Ijo% 4»';
    const { shapes } = placeItem(
      ItemSchema.parse({
        id: 'l',
        kind: 'lettering',
        name: 'L',
        face,
        text,
        capHeight: 31,
        tracking: 12,
        leading: 1.3,
        align: 'right',
        x: 40,
        y: 90,
        rotation: 7,
      }),
      resources,
    );
    expect(shapes.length).toBeGreaterThan(20);
    for (const { name, outlines } of shapes) {
      const loops = outlines.map(({ points }) => points);
      const covered = resources.clipper.union(loops, 'nonzero');
      expect(Math.abs(coveredBy(loops)), name).toBeCloseTo(coveredBy(covered), 2);
      expect(loops.length, name).toBe(covered.length);
    }
  },
);
