import { readFileSync } from 'node:fs';
import jsonPatch from 'fast-json-patch';
import { describe, expect, test } from 'vitest';
import { compute, ComputeCache } from '../core/src/job/compute.ts';
import type { Job } from '../core/src/job/job.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { measureQuicker, type Outcome } from '../core/src/remarks/quicker.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const demo = (name: string) => {
  const { job, assets } = readJobFile(
    readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'),
  );
  const cache = new ComputeCache();
  const resources = resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const run = async (j: Job) => compute(j, resources, await clipperFromDisk(), { cache });
  const outcome = async (j: Job): Promise<Outcome> => {
    const { minutes, cuts } = await run(j);
    return { minutes, depths: Object.fromEntries(cuts.map((c) => [c.cut, c.problem ? undefined : c.depth])) };
  };
  return { job, run, outcome };
};

describe('what would make it quicker', () => {
  test('every saving promised is the saving that comes, the largest first', async () => {
    const { job, outcome } = demo('entrance-board');
    const now = await outcome(job);
    const found = await measureQuicker(job, now, outcome);
    expect(found.length).toBeGreaterThan(2);
    expect(found.map(({ id }) => id)).toContain('bit-carve-v90');
    for (const { patch, minutesSaved } of found) {
      const then = await outcome(jsonPatch.applyPatch(structuredClone(job), patch).newDocument);
      expect(now.minutes - then.minutes).toBeCloseTo(minutesSaved, 9);
      expect(minutesSaved).toBeGreaterThan(0);
    }
    expect([...found].sort((a, b) => b.minutesSaved - a.minutesSaved)).toEqual(found);
  });
  test('an order of one’s own that costs bit changes is offered the usual one', async () => {
    const { job, run, outcome } = demo('night-light');
    const own = structuredClone(job);
    own.cuts = ['moon', 'lights', 'star', 'edge'].map((id) => own.cuts.find((cut) => cut.id === id)!);
    own.ownOrder = true;
    const result = await run(own);
    expect(result.cuts[0].cut).toBe('moon');
    expect(result.remarks.map(({ id }) => id)).toContain('order');
    expect((await run(job)).cuts[0].cut).toBe('lights');
    const found = await measureQuicker(own, await outcome(own), outcome);
    expect(found.map(({ id }) => id)).toContain('order');
  });
});
