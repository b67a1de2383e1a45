import { expect, test } from 'vitest';
import type { Cut } from '../cuts/kinds.ts';
import { CutSchema } from '../cuts/cut-schema.ts';
import { fewestChanges } from './fewest-changes.ts';

const base = { targets: [], feed: 1000, plunge: 500, speed: 16000, depth: 5, depthPerPass: 2 };
const pocket = (id: string, bit: string, clearBits: string[] = []): Cut =>
  CutSchema.parse({
    ...base,
    id,
    bit,
    clearBits,
    kind: 'pocket',
    step: 1,
    pattern: 'rings',
    climb: true,
    entry: { kind: 'ramp', angle: 5 },
  });
const carve = (id: string, bit: string, clearBits: string[] = []): Cut =>
  CutSchema.parse({ ...base, id, bit, clearBits, kind: 'v-carve', depthLimit: 5, floorStep: 0.5 });
const out = (id: string, bit: string, side: 'inside' | 'outside'): Cut =>
  CutSchema.parse({
    ...base,
    id,
    bit,
    kind: 'profile',
    side,
    climb: true,
    tabs: { count: 0, length: 6, height: 2 },
  });
const ids = (cuts: Cut[] | undefined) => cuts?.map(({ id }) => id);

test('the bit that is in does all it can before it comes out', () => {
  // Carving with a clearing 6 mm bit, then a pocket with that bit: 6, V, 6 has two changes; the pocket first has one.
  const cuts = [carve('words', 'v60', ['e6']), pocket('tray', 'e6')];
  expect(ids(fewestChanges(cuts, 2))).toEqual(['tray', 'words']);
  expect(fewestChanges([cuts[1], cuts[0]], 1)).toBeUndefined();
});
test('what is cut out stays last, inside before outside, whatever that costs', () => {
  const cuts = [out('edge', 'e6', 'outside'), pocket('a', 'e3'), out('window', 'e3', 'inside'), pocket('b', 'e6')];
  const order = ids(fewestChanges(cuts, 9))!;
  expect(order.slice(-2)).toEqual(['window', 'edge']);
  expect(order).toEqual(['b', 'a', 'window', 'edge']);
});
test('one cut, or more than can be tried, is left as it is', () => {
  expect(fewestChanges([pocket('a', 'e6')], 5)).toBeUndefined();
  const seven = Array.from({ length: 7 }, (_, k) => pocket(`p${k}`, k % 2 ? 'e3' : 'e6'));
  expect(ids(fewestChanges(seven, 6))).toEqual(['p0', 'p2', 'p4', 'p6', 'p1', 'p3', 'p5']);
  const many = Array.from({ length: 8 }, (_, k) => pocket(`p${k}`, k % 2 ? 'e3' : 'e6'));
  expect(fewestChanges(many, 7)).toBeUndefined();
});
