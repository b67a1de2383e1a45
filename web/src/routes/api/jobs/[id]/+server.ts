import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { JobSchema } from '@kerbe/core/job/job';
import { MOST_BYTES, spooled, taken } from '$lib/server/body';
import { answer, Revision, turnOf } from '$lib/server/door';
import { heavy } from '$lib/server/heavy/heavy';
import { openJob, saveJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

export const GET = ({ params }) => answer(async () => json(await openJob(await shop(), params.id)));

const Body = z.object({ base: Revision, job: JobSchema });

/** A longer document would keep everyone waiting while it is read; the demo's have a twentieth of it. */
const READ_HERE = 300_000;

/** Keeps a changed document as a revision; 409 where another window was quicker (both are kept). */
export const PUT = ({ params, request, locals }) =>
  answer(async () => {
    const length = Number(request.headers.get('content-length') ?? Infinity);
    if (length > READ_HERE)
      return spooled(request, MOST_BYTES.job, async (file) => {
        const { saved, text } = await heavy().do('save', [file, params.id], turnOf(request), locals.left);
        return new Response(text, { status: saved ? 200 : 409, headers: { 'content-type': 'application/json' } });
      });
    const { base, job } = await taken(request, Body, READ_HERE);
    const outcome = await saveJob(await shop(), params.id, base, job);
    return json(outcome, { status: outcome.saved ? 200 : 409 });
  });
