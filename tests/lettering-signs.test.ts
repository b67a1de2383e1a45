import { expect, test } from 'vitest';
import { placeItem } from '../core/src/artwork/place.ts';
import { ItemSchema } from '../core/src/document/item.ts';
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
