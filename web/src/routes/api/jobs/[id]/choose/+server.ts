import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { taken } from '$lib/server/body';
import { answer, Revision } from '$lib/server/door';
import { chooseRevision } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

/** After two windows changed one job: makes a revision that was kept aside the one that counts. 409 over a newer one. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const { base, revision } = await taken(request, z.object({ base: Revision, revision: Revision }));
    const outcome = await chooseRevision(await shop(), params.id, base, revision);
    return json(outcome, { status: outcome.saved ? 200 : 409 });
  });
