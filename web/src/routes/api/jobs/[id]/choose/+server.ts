import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { answer, Revision, taken } from '$lib/server/door';
import { chooseRevision } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

/** After two windows changed one job: makes a revision that was kept aside the one that counts. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const { base, revision } = await taken(request, z.object({ base: Revision, revision: Revision }));
    return json(await chooseRevision(await shop(), params.id, base, revision));
  });
