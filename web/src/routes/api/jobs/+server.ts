import type { Cut } from '@kerbe/core/cuts/kinds';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { newJob } from '@kerbe/core/document/new-job';
import { text } from '@kerbe/core/schema/text';
import { taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { benchesOf, bitsOf } from '$lib/server/inventory';
import { createJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

const Body = z.object({ name: text(120).trim().min(1), unit: z.enum(['mm', 'in']) });

/** Makes a new, empty job. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = await taken(request, Body);
    const db = await shop();
    const [bench] = await benchesOf(db);
    const job = newJob<Cut>(body.name, body.unit, await bitsOf(db), bench);
    return json({ id: (await createJob(db, job)).id });
  });
