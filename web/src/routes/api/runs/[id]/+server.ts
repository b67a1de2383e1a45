import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';
import { MOST_BYTES, taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { noteRun } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

/** Keeps a note with a run. */
export const PATCH = ({ params, request }) =>
  answer(async () => {
    const { note } = await taken(request, z.object({ note: text(5000) }), MOST_BYTES.text);
    if (!z.uuid().safeParse(params.id).success)
      return json({ problem: 'This run is not in the log.' }, { status: 404 });
    if (!(await noteRun(await shop(), params.id, note)))
      return json({ problem: 'This run is not in the log.' }, { status: 404 });
    return json({ note });
  });
