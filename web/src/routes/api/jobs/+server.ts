import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { bytesFromBase64, JobFileError, readJobFile } from '@kerbe/core/job/job-file';
import { newJob } from '@kerbe/core/job/new-job';
import { BitSchema } from '@kerbe/core/bits/bit';
import { BenchSchema } from '@kerbe/core/job/job';
import { keepAsset } from '$lib/server/assets';
import { answer, taken } from '$lib/server/door';
import { createJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

const Body = z.union([
  z.object({ name: z.string().trim().min(1).max(120), unit: z.enum(['mm', 'in']) }),
  z.object({ file: z.string().max(60_000_000) }),
]);

/** Makes a new job, empty or from a job file. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = await taken(request, Body);
    const db = await shop();
    if ('file' in body) {
      const { job, assets } = readJobFile(body.file);
      for (const [hash, asset] of Object.entries(assets)) {
        const kept = await keepAsset(db, asset.name, bytesFromBase64(asset.base64));
        if (kept !== hash)
          throw new JobFileError('The artwork in this file does not match what the job refers to; export it again.');
      }
      return json({ id: (await createJob(db, job)).id });
    }
    const bits = await db.selectFrom('bits').select('document').orderBy('position').execute();
    const benches = await db.selectFrom('benches').select('document').orderBy('position').execute();
    const job = newJob(
      body.name,
      body.unit,
      bits.map((row) => BitSchema.parse(row.document)),
      BenchSchema.parse(benches[0].document),
    );
    return json({ id: (await createJob(db, job)).id });
  });
