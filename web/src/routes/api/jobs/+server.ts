import type { Cut } from '@kerbe/core/cuts/kinds';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { newJob } from '@kerbe/core/document/new-job';
import { BitSchema } from '@kerbe/core/document/bit';
import { BenchSchema } from '@kerbe/core/document/bench';
import { text } from '@kerbe/core/schema/text';
import { taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { createJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

const Body = z.object({ name: text(120).trim().min(1), unit: z.enum(['mm', 'in']) });

/** Makes a new, empty job. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = await taken(request, Body);
    const db = await shop();
    const bits = await db.selectFrom('bits').select('document').orderBy('position').execute();
    const benches = await db.selectFrom('benches').select('document').orderBy('position').execute();
    const job = newJob<Cut>(
      body.name,
      body.unit,
      bits.map((row) => BitSchema.parse(row.document)),
      BenchSchema.parse(benches[0].document),
    );
    return json({ id: (await createJob(db, job)).id });
  });
