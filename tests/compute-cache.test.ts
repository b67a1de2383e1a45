import { readdirSync } from 'node:fs';
import { isDeepStrictEqual } from 'node:util';
import { expect, test } from 'vitest';
import { compute, ComputeCache, type JobResult } from '../core/src/compute/compute.ts';
import { type CutJob, JobSchema } from '../core/src/job/job.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { demoJob } from './demo-job.ts';
import { random } from './faults/random.ts';
import { leavesOf, withLeaf } from '../core/src/document/leaves-for-tests.ts';

/**
 * Promise held here: a job whose parts were computed before comes to what it comes to when computed anew, whatever single
 * field of it was changed since.
 *
 * `KERBE_LEAVES=1000` tries more fields of each job; a failure names the field, `KERBE_SEED` begins elsewhere.
 */
const COUNT = Number(process.env.KERBE_LEAVES ?? 2);
const SEED = Number(process.env.KERBE_SEED ?? 1);
const NAMES = readdirSync('demo/jobs').map((file) => file.replace('.kerbe.json', ''));

/** What a result says, without functions, which are never the same twice. */
const plain = (result: JobResult) =>
  JSON.parse(
    JSON.stringify(result, (_, value: unknown) =>
      ArrayBuffer.isView(value) ? Array.from(value as Float64Array) : value,
    ),
  ) as unknown;

test.each(NAMES)('%s: what is kept of a job is what it comes to', async (name) => {
  const { file, resources } = await demoJob(name);
  const clipper = await clipperFromDisk();
  const cache = new ComputeCache();
  const base = file.job;
  await compute(base, resources, clipper, { cache });
  const dice = random(SEED * 7919 + name.length);
  const leaves = leavesOf(base).toSorted(() => dice() - 0.5);
  let tried = 0;
  for (const leaf of leaves) {
    if (tried >= COUNT) break;
    const changed = JobSchema.safeParse(withLeaf(base, leaf));
    if (!changed.success) continue;
    tried++;
    const job = changed.data as CutJob;
    const kept = await compute(job, resources, clipper, { cache });
    const anew = await compute(job, resources, clipper);
    expect(isDeepStrictEqual(plain(kept), plain(anew)), `${leaf.path.join('.')} is ${JSON.stringify(leaf.to)}`).toBe(
      true,
    );
  }
  expect(tried).toBeGreaterThan(Math.min(COUNT, leaves.length) / 2);
});

test('what is said of a cut that cannot be made is in the unit that the job has now', async () => {
  const { resources, changed } = await demoJob('sundial-face');
  const clipper = await clipperFromDisk();
  const cache = new ComputeCache();
  const deep = changed(({ cuts }) => cuts.forEach((cut) => 'depth' in cut && (cut.depth = 60)));
  const said = async (unit: 'mm' | 'in') =>
    (await compute({ ...deep, unit }, resources, clipper, { cache })).cuts.flatMap(({ problem }) => problem ?? []);
  expect(await said('mm')).toEqual([expect.stringContaining('cone is 11 mm high')]);
  expect(await said('in')).toEqual([expect.stringContaining('cone is 0.433 in high')]);
});
