import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, test } from 'vitest';
import { intrusion } from '../core/src/carving/intrusion.ts';
import { compute, ComputeCache, type JobResult } from '../core/src/compute/compute.ts';
import type { Job } from '../core/src/document/job.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { planMotion } from '../core/src/motion/plan.ts';
import { programsFor } from '../core/src/machines/programs.ts';
import { readProgram } from '../core/src/program/read.ts';
import { distanceToKeepOut, KEEP_OUT_ROOM } from '../core/src/stock/keep-out.ts';
import { type Obstacle, obstaclesOf } from '../core/src/stock/obstacles.ts';
import { zeroOf } from '../core/src/stock/stock.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const file = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
const resources = await resourcesFromDisk((hash) => file.assets[hash] && bytesFromBase64(file.assets[hash].base64));
const cache = new ComputeCache();
const run = async (change: (job: Job) => void = () => {}): Promise<{ job: Job; result: JobResult }> => {
  const job = structuredClone(file.job);
  job.bench.pins = 'stay';
  change(job);
  return { job, result: await compute(job, resources, await clipperFromDisk(), { cache }) };
};
/** A pin in the midst of the plate, where links pass but nothing is cut. */
const pin: Obstacle = { id: 'pin-1', kind: 'pin', x: 179, y: 68, length: 6, width: 5, height: 20 };
let plain: JobResult;
beforeAll(async () => {
  plain = (await run()).result;
});

describe('what holds the work, in a whole job', () => {
  test('a pin in the way of links makes no remark: they go over or round it, and nothing else changes', async () => {
    const { result } = await run((job) => job.stock.keepOuts.push(pin));
    expect(result.remarks.filter((remark) => remark.weight === 'wrong')).toEqual([]);
    for (const [k, part] of result.cuts.entries()) {
      expect(intrusion(part.path, part.radius, pin)).toBe(0);
      expect(part.cutLength).toBeCloseTo(plain.cuts[k].cutLength, 9);
      expect(part.depth).toBe(plain.cuts[k].depth);
    }
    const links = (r: JobResult) => r.cuts.reduce((sum, part) => sum + part.linkLength, 0);
    expect(links(result)).toBeGreaterThan(links(plain));
    expect(result.minutes).toBeGreaterThan(plain.minutes);
  });
  test('moving it computes no cut again, and taking it away brings the old ways back', async () => {
    const made = (await run((job) => job.stock.keepOuts.push(pin))).result;
    const moved = (await run((job) => job.stock.keepOuts.push({ ...pin, x: 176 }))).result;
    expect(moved.cuts.some((part, k) => part.path !== made.cuts[k].path)).toBe(true);
    // A part whose links pass nowhere near keeps the very same path.
    expect(moved.cuts.some((part, k) => part.path === made.cuts[k].path)).toBe(true);
    const back = (await run()).result;
    expect(back.cuts.map(({ path }) => path)).toEqual(plain.cuts.map(({ path }) => path));
  });
  test('pins that are down during a run are in nobody’s way', async () => {
    const { result } = await run((job) => {
      job.bench.pins = 'down';
      job.stock.keepOuts.push({ ...pin, x: 60, y: 70 });
    });
    expect(result.remarks.filter((remark) => remark.weight === 'wrong')).toEqual([]);
    expect(result.cuts.map(({ path }) => path)).toEqual(plain.cuts.map(({ path }) => path));
  });
  test('a clamp of no known height is asked for, keeps programs back, and is gone over as one of 25 mm', async () => {
    const clamp = { ...pin, id: 'clamp-1', kind: 'clamp' as const };
    const unknown = await run((job) => job.stock.keepOuts.push({ ...clamp, height: null }));
    const asked = unknown.result.remarks.filter(({ withholds }) => withholds);
    expect(asked.map(({ text }) => text)).toEqual([
      'How high does the clamp at 179 mm, 68 mm stand over the stock? Measure it and write it there; 25 mm is reckoned with meanwhile, and no program is written.',
    ]);
    const high = await run((job) => job.stock.keepOuts.push({ ...clamp, height: 25 }));
    expect(unknown.result.cuts.map(({ path }) => path)).toEqual(high.result.cuts.map(({ path }) => path));
    expect(high.result.remarks.filter(({ withholds }) => withholds)).toEqual([]);
  });
  test('a pin under a cut is still said, with a place where it would be out of the way', async () => {
    const { job, result } = await run((j) => j.stock.keepOuts.push({ ...pin, x: 60, y: 70 }));
    const remark = result.remarks.find(({ id }) => id === 'keep-out-moon-pin-1')!;
    expect(remark.weight).toBe('wrong');
    expect(remark.text).toMatch(/^The pin at 60 mm, 70 mm stands .* mm inside the way of the bit\.$/);
    expect(remark.remedies[0].label).toMatch(/^Move the pin to|^Take the pin away/);
    expect(job.stock.keepOuts).toHaveLength(3);
  });
  test('read back, the program itself passes everything that stands higher with room to spare', async () => {
    // A batten between moon and star, over which the bit goes from cut to cut.
    const batten: Obstacle = { ...pin, id: 'batten', kind: 'clamp', x: 100, y: 20, length: 6, width: 100, height: 9 };
    const { job, result } = await run((j) => j.stock.keepOuts.push(pin, batten));
    const [program] = programsFor(job, result, { revision: '1', date: '2026-11-24' });
    const { path } = readProgram(program.text);
    const zero = zeroOf(job.stock);
    let passed = 0;
    for (let i = 1; i < path.feed.length; i++) {
      if (path.feed[i] > 0) continue;
      const [ax, ay, az, bx, by, bz] = path.xyz.subarray(3 * i - 3, 3 * i + 3);
      if (ax === bx && ay === by) continue;
      const z = Math.min(az, bz) + zero.z;
      for (const keepOut of obstaclesOf(job)) {
        const near = distanceToKeepOut(ax + zero.x, ay + zero.y, bx + zero.x, by + zero.y, keepOut);
        if (near > KEEP_OUT_ROOM) continue;
        passed++;
        // Three decimals in the program.
        expect(z).toBeGreaterThan(keepOut.height + KEEP_OUT_ROOM - 0.002);
      }
    }
    expect(passed).toBeGreaterThan(0);
  });
  test('a dwell stays at the bottom of its hole when links are led round', async () => {
    const { job, result } = await run((j) => {
      j.stock.keepOuts.push(pin);
      Object.assign(
        j.cuts.find((cut) => cut.kind === 'drill')!,
        { dwell: 0.5 },
      );
    });
    const { path, dwells, depth, minutes } = result.cuts.find((part) => part.cut === 'lights')!;
    expect(dwells).toMatchObject({ seconds: 0.5 });
    expect(dwells!.points).toHaveLength(5);
    expect(minutes).toBeCloseTo(planMotion(path, job.bench.limits, dwells).minutes, 9);
    expect(minutes - planMotion(path, job.bench.limits).minutes).toBeGreaterThan((5 * 0.5) / 60);
    for (const point of dwells!.points) expect(path.xyz[3 * point + 2]).toBeCloseTo(-depth, 9);
  });
  test('the sum over bits is the sum over cuts', async () => {
    for (const { result } of [await run(), await run((job) => job.cuts.reverse())]) {
      expect(result.bits.reduce((sum, { minutes }) => sum + minutes, 0)).toBeCloseTo(
        result.cuts.reduce((sum, { minutes }) => sum + minutes, 0),
        9,
      );
      expect(result.bits.map(({ bit }) => bit)).toEqual([...new Set(result.cuts.map(({ bit }) => bit))]);
    }
  });
});
