import { expect, test } from 'vitest';
import { CUT_KINDS, type CutKindName } from './kinds.ts';
import { candidates, proposed } from './propose.ts';

const ring = (x: number, y: number, r: number, n = 32) =>
  Float64Array.from({ length: 2 * n }, (_, i) => (i % 2 ? y + r * Math.sin((Math.PI * (i - 1)) / n) : x + r * Math.cos((Math.PI * i) / n))); // prettier-ignore
const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const shape = (mark: string, points: Float64Array, closed = true) => ({
  name: mark,
  mark,
  rule: 'nonzero' as const,
  outlines: [{ points, closed }],
});
const items = [
  {
    id: 'sign',
    shapes: [
      shape('board', box(0, 0, 200, 100)),
      shape('letter', box(20, 20, 30, 40)),
      shape('hole', ring(180, 50, 3)),
      shape('wide hole', ring(150, 50, 6)),
      shape('flourish', Float64Array.of(20, 10, 60, 10), false),
    ],
  },
  { id: 'star', shapes: [shape('star', box(100, 20, 20, 20))] },
];
const bit = { id: 'b', name: 'Drill 6', kind: 'drill', diameter: 6, flute: 20, shank: 6, presets: [] };
const first = (kind: CutKindName, cuts: Parameters<typeof proposed>[2] = []) =>
  CUT_KINDS[kind]
    .proposes(bit as never)
    .map((proposal) => proposed(proposal, items, cuts).targets)
    .find((targets) => targets.length > 0);

test('what suits is proposed: insides to carve, the border to cut out, circles of the drill’s size, open lines', () => {
  expect(first('v-carve')).toEqual([
    { item: 'sign', shapes: ['letter', 'hole', 'wide hole'] },
    { item: 'star', shapes: 'all' },
  ]);
  expect(first('profile')).toEqual([{ item: 'sign', shapes: ['board'] }]);
  expect(first('drill')).toEqual([{ item: 'sign', shapes: ['hole'] }]);
  expect(first('line')).toEqual([{ item: 'sign', shapes: ['flourish'] }]);
});

test('what a cut has already is not proposed again to be carved', () => {
  const cut = { id: 'c', kind: 'v-carve', bit: 'b', targets: [{ item: 'sign', shapes: ['letter', 'hole'] }] };
  expect(first('pocket', [cut])).toEqual([
    { item: 'sign', shapes: ['wide hole'] },
    { item: 'star', shapes: 'all' },
  ]);
});

test('a cut-out of letters that nothing goes round takes the letters', () => {
  const only = [items[1]];
  const [border, insides] = CUT_KINDS.profile.proposes(bit as never);
  expect(proposed(border, only, []).shapes).toBe(0);
  expect(proposed(insides, only, []).targets).toEqual([{ item: 'star', shapes: 'all' }]);
  expect(candidates(only, [])[0][0]).toMatchObject({ closed: true, free: true, holds: false, held: false });
});
