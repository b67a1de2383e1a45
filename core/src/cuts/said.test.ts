import { describe, expect, test } from 'vitest';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import { ToolSchema } from '../tools/tool-schema.ts';
import type { Beam } from '../tools/beam/fields.ts';
import { togetherNotes, togetherTexts } from './grown-together.ts';
import { judgeSettings } from './laser-settings.ts';
import { plasmaKind } from './plasma/kind.ts';
import { nextSmallerMill } from './smaller-bit.ts';
import { vCarveKind } from './v-carve/kind.ts';

describe('shapes that are one where they meet', () => {
  test('in a heading', () => {
    expect(togetherNotes({ overlaps: 0, touching: 0 }, 'mm')).toEqual([]);
    expect(togetherNotes({ overlaps: 2, touching: 12.345 }, 'mm')).toEqual([
      'Places where shapes overlap: 2.',
      'Lines that shapes share, and that are not cut: 12.3 mm.',
    ]);
  });
  test('as remarks, each with what to do', () => {
    const texts = (overlaps: number, touching: number, openLines = false) =>
      togetherTexts({ overlaps, touching }, 'mm', openLines).map(({ id, text }) => `${id}: ${text}`);
    expect(texts(0, 0)).toEqual([]);
    expect(texts(1, 0)).toEqual(['overlap: In one place shapes overlap; see that what comes out there is one part, or move them apart.']); // prettier-ignore
    expect(texts(3, 0)[0]).toMatch(/^overlap: In 3 places /);
    expect(texts(0, 12.345)).toEqual(['touching: Shapes touch along 12.3 mm of their lines: they are one part there, and that line is not cut. Move them apart by more than the cut is wide.']); // prettier-ignore
    expect(texts(0, 5, true)[0]).toMatch(/is wide, or draw it once more as an open line\.$/);
  });
});

test('the next smaller mill is the largest of the smaller ones, and no other bit', () => {
  const bits = [2, 6, 3, 8].map((diameter) => ({ id: `e${diameter}`, kind: 'end', diameter }));
  const job = { bits: [...bits, { id: 'v5', kind: 'v', diameter: 5 }] } as unknown as Job;
  expect(nextSmallerMill(job, 6.35)?.id).toBe('e6');
  expect(nextSmallerMill(job, 6)?.id).toBe('e3');
  expect(nextSmallerMill(job, 2)).toBeUndefined();
});

describe('a beam’s settings for the stock', () => {
  const row = { material: 'birch plywood', thickness: 3, cutPower: 80, cutFeed: 600, cutPasses: 1, scorePower: 10, scoreFeed: 900, fillPower: 20, fillFeed: 3000, fillLines: 0 }; // prettier-ignore
  const own = ToolSchema.parse({ id: 'l', name: 'Lens 2', kind: 'beam', diameter: 0.1, shank: 30, presets: [row] }) as Beam; // prettier-ignore
  const said = (material: string, thick: number) =>
    judgeSettings({
      job: {
        unit: 'mm',
        stock: { material, corners: [thick, thick, thick, thick], thickness: thick },
      } as unknown as Job,
      cut: { id: 'c' } as BaseCut,
      own,
    }).map(({ text }) => text);
  test('nothing where they fit', () => {
    expect(said('birch plywood', 3)).toEqual([]);
  });
  test('another thickness', () => {
    expect(said('birch plywood', 6.25)).toEqual(['Lens 2 has settings for 3 mm of birch plywood, and this was measured 6.25 mm thick; try it on a scrap, or burn a test grid.']); // prettier-ignore
  });
  test('another material: nothing, as that is asked of any tool', () => {
    expect(said('felt', 3)).toEqual([]);
  });
});

test.each([
  [0.9, 0],
  [1.5, 1],
])('a floor of %f mm² is worth %i lines: less than a square millimetre is rounding', (floorArea, lines) => {
  const facts = { tooNarrow: 0, narrow: new Float64Array(), floorArea, fullDepth: 5 };
  const part = { facts } as never;
  expect(vCarveKind.facts!(part, String, 'mm')).toHaveLength(lines);
  expect(vCarveKind.notes!({} as never, part, {} as never, 'mm')).toHaveLength(lines);
});

test('what is marked of a plasma cut: islands and what closes up always, pierces and small holes where looked at', () => {
  const loop = Float64Array.of(0, 0, 10, 0, 10, 10);
  const facts = { kerf: 1.5, pierces: [{ x: 1, y: 2 }], narrow: [loop], islands: [loop, loop], tooSmall: [{ x: 5, y: 5, diameter: 3 }] }; // prettier-ignore
  const marks = plasmaKind.marks!({ facts } as never).map(({ word, always, outlines, circles }) => [word, always, outlines.length, circles.map(({ radius }) => radius)]); // prettier-ignore
  expect(marks).toEqual([
    ['pierced here', false, 0, [1.5]],
    ['narrower than the kerf', true, 1, []],
    ['drops out', true, 2, []],
    ['small for this sheet', false, 0, [3]],
  ]);
});
