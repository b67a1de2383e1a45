import jsonPatch from 'fast-json-patch';
import { expect, test } from 'vitest';
import type { JobResult } from '../core/src/compute/compute.ts';
import type { VCarveCut } from '../core/src/cuts/v-carve/fields.ts';
import type { CutJob as Job } from '../core/src/job/job.ts';
import { demoJob } from './demo-job.ts';

const { run, changed } = await demoJob('comet-marker');
const carve = (job: Job) => job.cuts.find((cut): cut is VCarveCut => cut.kind === 'v-carve')!;

test('corners that differ are judged by what they do to the width of strokes', async () => {
  const said = async (corners: Job['stock']['corners'], bit: string) => {
    const job = changed((j) => {
      j.stock.corners = corners;
      carve(j).bit = bit;
    });
    return (await run(job)).remarks.find(({ id }) => id === 'uneven-stock')?.text;
  };
  // A 60° groove loses 2 · tan 30° of what it loses in depth, a 90° one twice as much as that depth.
  const narrower = async (bit: string) => {
    const text = await said([9, 9, 8.4, 8.4], bit);
    expect(text).toMatch(/strokes come out up to [\d.]+ mm narrower where the stock is low\.$/);
    return Number(/up to ([\d.]+) mm/.exec(text!)![1]);
  };
  const [sharp, blunt] = [await narrower('v60'), await narrower('v90')];
  expect(blunt).toBeLessThanOrEqual(1.2);
  expect(blunt).toBeGreaterThan(0.5);
  expect(sharp / blunt).toBeCloseTo(Math.tan(Math.PI / 6), 1);
  expect(await said([9, 9, 8.97, 8.97], 'v60')).toBeUndefined();
});

test('cut deeper by the spread, strokes are as drawn at the lowest place, and floors as deep', async () => {
  const uneven = (job: Job) => (job.stock.corners = [9, 9, 8.4, 8.4]);
  const found = (result: JobResult) => result.remarks.find(({ id }) => id === 'uneven-stock');
  const job = changed(uneven);
  const before = await run(job);
  const remedy = found(before)!.remedies[0];
  const [, by] = /^Cut ([\d.]+) mm deeper: strokes as drawn where it is low, wider where it is thick$/.exec(
    remedy.label,
  )!;
  const deeper = jsonPatch.applyPatch(structuredClone(job), remedy.patch).newDocument;
  const after = await run(deeper);
  const depth = (result: JobResult) => result.cuts.find(({ id }) => id === 'carve')!.depth;
  expect(depth(after) - depth(before)).toBeCloseTo(Number(by), 6);
  expect(found(after)?.text).toBeUndefined();
});
