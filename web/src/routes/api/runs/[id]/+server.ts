import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { answer, taken } from '$lib/server/door';
import { shop } from '$lib/server/shop';

/** Keeps a note with a run. */
export const PATCH = ({ params, request }) =>
  answer(async () => {
    const { note } = await taken(request, z.object({ note: z.string().max(5000) }));
    const db = await shop();
    const done = await db.updateTable('runs').set({ note }).where('id', '=', params.id).executeTakeFirst();
    if (done.numUpdatedRows === 0n) return json({ problem: 'This run is not in the log.' }, { status: 404 });
    return json({ note });
  });
