import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { JobSchema } from '@kerbe/core/job/job';
import { answer, Revision, taken } from '$lib/server/door';
import { openJob, saveJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

export const GET = ({ params }) => answer(async () => json(await openJob(await shop(), params.id)));

const Body = z.object({ base: Revision, job: JobSchema });

/** Keeps a changed document as a revision; 409 where another window was quicker (both are kept). */
export const PUT = ({ params, request }) =>
  answer(async () => {
    const { base, job } = await taken(request, Body);
    const outcome = await saveJob(await shop(), params.id, base, job);
    return json(outcome, { status: outcome.saved ? 200 : 409 });
  });
