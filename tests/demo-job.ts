import { readFileSync } from 'node:fs';
import { compute, ComputeCache, type JobResult } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { type CutJob, JobSchema } from '../core/src/job/job.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

/**
 * A job of the demo to change and compute.
 * @param name of its file. @param more drawings by their hashes, besides those that the file brings.
 */
export async function demoJob(name: string, more: Record<string, string> = {}) {
  const file = readJobFile(readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'));
  const resources = await resourcesFromDisk((hash) =>
    hash in more
      ? new TextEncoder().encode(more[hash])
      : file.assets[hash] && bytesFromBase64(file.assets[hash].base64),
  );
  const cache = new ComputeCache();
  return {
    file,
    resources,
    run: async (job: CutJob): Promise<JobResult> =>
      compute(JobSchema.parse(job), resources, await clipperFromDisk(), { cache }),
    changed(change: (job: CutJob) => void): CutJob {
      const job = structuredClone(file.job);
      change(job);
      return job;
    },
  };
}
