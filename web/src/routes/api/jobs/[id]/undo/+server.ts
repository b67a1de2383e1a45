import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { taken } from '$lib/server/body';
import { answer, Revision } from '$lib/server/door';
import { stepJob } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

export const POST = ({ params, request }) =>
  answer(async () => {
    const { base } = await taken(request, z.object({ base: Revision }));
    return json(await stepJob(await shop(), params.id, base, 'undo'));
  });
