import { expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import type { Bit } from '../tools/turned.ts';
import type { VBit } from '../tools/v/fields.ts';
import type { Cut } from './kinds.ts';
import type { Job } from '../document/job.ts';
import { readJobFile } from '../job/job-file.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import type { CutPart } from './cut-part.ts';
import { newCut } from './new-cut.ts';
import { cutArtwork } from './cut-artwork.ts';
import { partsOf } from './parts-of.ts';
import { tabsMissing } from './tabs-remarks.ts';

const demo = readJobFile(
  readFileSync(new URL('../../../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'),
).job;
const mill = (diameter: number): Bit => ({ id: `m${diameter}`, name: `End ${diameter}`, kind: 'end', diameter, flute: 30, shank: 6, presets: [] }); // prettier-ignore
const v: VBit = { id: 'v', name: 'V 60', kind: 'v', diameter: 12, angle: 60, tip: 0, flute: 12, shank: 6, presets: [] };
const job: Job = { ...demo, bits: [v, mill(3), mill(4), mill(8)] };
const square = Float64Array.of(10, 10, 60, 10, 60, 60, 10, 60);
const shapes = [{ name: '', rule: 'nonzero' as const, outlines: [{ points: square, closed: true }] }];

async function made<K extends Cut['kind']>(kind: K, fields: Partial<Extract<Cut, { kind: K }>>): Promise<CutPart[]> {
  const cut = { ...newCut(job, kind, 'c')!, ...fields } as Cut;
  return partsOf(job, cut, cutArtwork(shapes, clipper), clipper);
}
const extent = ({ path }: CutPart, axis: 0 | 1) => {
  const low = Array.from(path.feed, (_, i) => [path.xyz[3 * i + axis], path.xyz[3 * i + 2]]).filter(([, z]) => z < 0);
  return [Math.min(...low.map(([p]) => p)), Math.max(...low.map(([p]) => p))];
};

test('what clears for a carving goes by 40 % of each bit, the larger first, and before it', async () => {
  const parts = await made('v-carve', { bit: 'v', depthLimit: 3, clearBits: ['m3', 'm8'] });
  expect(parts.map(({ bit }) => bit)).toEqual(['m8', 'm3', 'v']);
  expect(parts.map(({ clearing }) => clearing?.step)).toEqual([3.2, expect.closeTo(1.2, 9), undefined]);
  expect(parts.map(({ rank }) => rank)).toEqual([...parts.map(({ rank }) => rank)].sort((a, b) => a - b));
  expect(new Set(parts.map(({ rank }) => rank)).size).toBe(3);
});

test('what clears for a pocket steps as much of its own width as the pocket’s bit does, and comes before it', async () => {
  const parts = await made('pocket', { bit: 'm4', step: 1, depth: 3, clearBits: ['m8'] });
  expect(parts.map(({ bit, clearing }) => [bit, clearing?.step])).toEqual([
    ['m8', 2],
    ['m4', undefined],
  ]);
  expect(parts[0].rank).toBeLessThan(parts[1].rank);
});

test('the part of an inlay lies where it is laid, the recess where it was drawn', async () => {
  const fields = { bit: 'm4', otherDiameter: 4, depth: 3, shift: { x: 100, y: -7 } };
  const [recess] = await made('inlay', { ...fields, role: 'recess' });
  const [part] = await made('inlay', { ...fields, role: 'part' });
  const close = (from: number, to: number) => [expect.closeTo(from, 0), expect.closeTo(to, 0)];
  expect([extent(recess, 0), extent(recess, 1)]).toEqual([close(12, 58), close(12, 58)]);
  expect([extent(part, 0), extent(part, 1)]).toEqual([close(108, 162), close(1, 55)]);
});

test('every loop of a cut-out asks for its tabs, and those without a place are counted', async () => {
  const tabs = { count: 3, length: 6, height: 1, shape: 'square' as const, anyway: false, at: [] };
  expect((await made('profile', { bit: 'm3', tabs }))[0]).toMatchObject({ tabsMissing: 0 });
  // 50 mm of edge are too short for this one, wherever it stands.
  const [long] = await made('profile', { bit: 'm3', tabs: { ...tabs, length: 70 } });
  expect(long.tabs.length + long.tabsMissing).toBe(3);
  expect(long.tabsMissing).toBeGreaterThan(0);
  expect(tabsMissing({ ...tabs, at: [] }, { tabs: [{}], starts: [{}, {}] })).toBe(5);
  expect(tabsMissing({ ...tabs, at: [{ x: 1, y: 2 }] }, { tabs: [], starts: [{}, {}] })).toBe(1);
});
