import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { answer, Revision, taken } from '$lib/server/door';
import { runsOf, startRun } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

export const GET = ({ params }) => answer(async () => json({ runs: await runsOf(await shop(), params.id) }));

/** Starts a run of the job as it stands. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const { revision } = await taken(request, z.object({ revision: Revision }));
    return json({ id: await startRun(await shop(), params.id, revision) });
  });
