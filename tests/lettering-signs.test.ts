import { expect, test } from 'vitest';
import { FACE_FILES } from '../core/src/artwork/faces.ts';
import { placeItem } from '../core/src/artwork/place.ts';
import { type Face, ItemSchema } from '../core/src/document/item.ts';
import { boundsOf, coveredBy } from '../core/src/geometry/outline.ts';
import { resourcesFromDisk } from '../machine/src/core-from-disk.ts';

test('a sign that the face lacks is left out with its place kept, and said; of nothing but such signs nothing is made', async () => {
  const resources = await resourcesFromDisk(() => undefined);
  const lettered = (text: string) =>
    placeItem(
      ItemSchema.parse({
        id: 'l',
        kind: 'lettering',
        name: 'L',
        face: 'josefin',
        text,
        capHeight: 20,
        tracking: 0,
        leading: 1.4,
        align: 'left',
        x: 0,
        y: 0,
        rotation: 0,
      }),
      resources,
    );
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

// Tracking opens the letters, and nothing after the last one: where a line is held, it stays.
test.each(['left', 'centre', 'right'] as const)(
  'however wide letters are tracked, a line that is held %s stays there',
  async (align) => {
    const resources = await resourcesFromDisk(() => undefined);
    const lettered = (tracking: number) => {
      const { shapes } = placeItem(
        ItemSchema.parse({
          id: 'l',
          kind: 'lettering',
          name: 'L',
          face: 'rokkitt',
          text: 'VALE\nOak 7',
          capHeight: 23,
          tracking,
          leading: 1.3,
          align,
          x: 31,
          y: 17,
          rotation: 0,
        }),
        resources,
      );
      const places = shapes.map(({ outlines }) => boundsOf(outlines)!);
      return [places.slice(0, 4), places.slice(4)];
    };
    const [close, wide] = [lettered(0), lettered(250)];
    for (const row of [0, 1]) {
      const [first, last] = [wide[row][0].minX - close[row][0].minX, wide[row].at(-1)!.maxX - close[row].at(-1)!.maxX];
      expect(last - first).toBeGreaterThan(10);
      const held = { left: first, centre: first + last, right: last }[align];
      expect(held).toBeCloseTo(0, 6);
    }
  },
);
