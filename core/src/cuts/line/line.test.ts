import { describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import type { Bit } from '../../tools/turned.ts';
import type { VBit } from '../../tools/v/fields.ts';
import { measurePath } from '../../motion/path.ts';
import type { CutPart } from '../cut-part.ts';
import { readJobFile } from '../../job/job-file.ts';
import { newCut } from '../new-cut.ts';
import { cutArtwork } from '../cut-artwork.ts';
import { partsOf } from '../parts-of.ts';
import type { LineFacts } from './facts.ts';
import type { LineCut } from './fields.ts';

const demo = readJobFile(
  readFileSync(new URL('../../../../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'),
).job;
const v: VBit = { id: 'v', name: 'V 60', kind: 'v', diameter: 6, angle: 60, tip: 0, flute: 12, shank: 6, presets: [] };
const mill: Bit = { id: 'm', name: 'End 3', kind: 'end', diameter: 3, flute: 12, shank: 6, presets: [] };
const drill: Bit = { ...mill, id: 'd', kind: 'drill' };
const job = { ...demo, bits: [v, mill, drill] };
const outline = (closed: boolean, ...points: number[]) => ({ points: Float64Array.from(points), closed });

async function followed(outlines: ReturnType<typeof outline>[], fields: Partial<LineCut> = {}): Promise<CutPart> {
  const cut = { ...newCut(job, 'line', 'c')!, ...fields };
  const shapes = outlines.length ? [{ name: '', rule: 'nonzero' as const, outlines }] : [];
  // Without a clipper, what is not asked for cannot be made.
  return (await partsOf(job, cut, cutArtwork(shapes, undefined as never), undefined as never))[0];
}
const facts = (part: CutPart) => part.facts as LineFacts;

describe('lines as drawn', () => {
  test('an open line is followed from end to end, at its depth', async () => {
    const part = await followed([outline(false, 0, 0, 30, 40)], { depth: 0.5 });
    const { cut, lowest, lifts } = measurePath(part.path);
    // Down 0.5 mm from the top and from above it, then along.
    expect(cut).toBeGreaterThan(50 + 0.5);
    expect(cut).toBeLessThan(50 + 0.5 + 1.01);
    expect([lowest, lifts]).toEqual([-0.5, 0]);
    // A 60° bit at 0.5 mm leaves 2 · 0.5 · tan 30°.
    expect(facts(part).width).toBeCloseTo(0.57735, 5);
  });
  test('a branch is gone over twice where that takes less time than a lift, and only there', async () => {
    const fields = { feed: 1700, plunge: 430, depth: 0.9 };
    // Up, and down again by a rapid move to the surface, then into it at the plunge feed rate.
    const lift = 1700 * ((2 * job.stock.lift) / job.bench.limits.speed.z + 0.9 / 430);
    const runs = async (branch: number) =>
      facts(
        await followed(
          [outline(false, 0, 0, 70, 0), outline(false, 70, 0, 130, 20), outline(false, 70, 0, 70, branch)],
          fields,
        ),
      ).runs;
    expect([await runs(0.98 * lift), await runs(1.02 * lift)]).toEqual([1, 2]);
  });
  test('in passes it goes there and back, and a loop round and round, without a lift', async () => {
    const fields = { depth: 1, depthPerPass: 0.4, lastPass: 0.2 };
    const open = await followed([outline(false, 0, 0, 30, 40)], fields);
    expect(open.passes).toBe(3);
    expect(measurePath(open.path)).toMatchObject({ lowest: -1, lifts: 0 });
    expect(measurePath(open.path).cut).toBeCloseTo(3 * 50 + 1 + 0.5, 6);
    const loop = await followed([outline(true, 0, 0, 10, 0, 10, 10, 0, 10)], fields);
    expect(measurePath(loop.path)).toMatchObject({ lowest: -1, lifts: 0 });
    expect(measurePath(loop.path).cut).toBeCloseTo(3 * 40 + 1 + 0.5, 6);
  });
  test('lines whose ends nearly touch are one', async () => {
    const lines = [outline(false, 0, 0, 10, 0), outline(false, 10.1, 0, 20, 0)];
    expect(facts(await followed(lines, { join: 0.2 })).runs).toBe(1);
    const apart = await followed(lines, { join: 0.05 });
    expect([facts(apart).runs, measurePath(apart.path).lifts]).toEqual([2, 1]);
  });
  test('an end mill leaves its own width', async () => {
    expect(facts(await followed([outline(false, 0, 0, 9, 0)], { bit: 'm' })).width).toBe(3);
  });
  test.each([
    [[], {}, /No lines are chosen/],
    [[outline(false, 3, 4)], {}, /points; choose lines/],
    [
      [outline(false, 0, 0, 9, 0)],
      { bit: 'd' },
      /An engraved line cannot be made with a drill; choose a V-bit or an end mill for this cut\./,
    ],
    [[outline(false, 0, 0, 9, 0)], { depth: 6, depthPerPass: 6 }, /cone is 5\.2 mm high/],
    [[outline(false, 0, 0, 9, 0)], { depth: 1, depthPerPass: 0.5, lastPass: 0.6 }, /thicker than a pass/],
  ])('what cannot be followed gets a sentence: %#', async (outlines, fields, sentence) => {
    await expect(followed(outlines, fields)).rejects.toThrow(sentence);
  });
});
