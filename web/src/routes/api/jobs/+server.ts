import type { Cut } from '@kerbe/core/cuts/kinds';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import { newJob } from '@kerbe/core/document/new-job';
import { text } from '@kerbe/core/schema/text';
import { taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { benchesOf, bitsOf } from '$lib/server/inventory';
import { Refused } from '$lib/server/refusal';
import { createJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

const Body = z.object({ name: text(120).trim().min(1), unit: z.enum(['mm', 'in']), bench: text(60).optional() });

/** Makes a new, empty job for a bench, the first of the shop where none is named. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = await taken(request, Body);
    const db = await shop();
    const benches = await benchesOf(db);
    const bench = body.bench === undefined ? benches[0] : benches.find(({ id }) => id === body.bench);
    if (!bench)
      throw new Refused('This bench is none of the shop’s; load the list of jobs again, and choose another.', 404);
    const job = newJob<Cut>(body.name, body.unit, await bitsOf(db), bench, machineKindOf(bench).tools);
    return json({ id: (await createJob(db, job)).id });
  });
