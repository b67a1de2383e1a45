import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { taken } from '$lib/server/body';
import { answer, asker, Revision } from '$lib/server/door';
import { checkBroken, checkRun } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

const CheckSchema = z.union([
  z.object({ revision: Revision, which: z.number().int().min(0).max(1000) }).strict(),
  z.object({ broken: z.uuid() }).strict(),
]);

/** Has a program of the job, or the one of a run that broke off, checked on the bench; a start names what was found. */
export const POST = ({ params, request, locals }) =>
  answer(async () => {
    const asked = await taken(request, CheckSchema);
    const db = await shop();
    const from = asker(request);
    if ('broken' in asked) return json({ checked: await checkBroken(db, params.id, asked.broken, from) });
    return json(await checkRun(db, params.id, asked.revision, asked.which, from, locals.left));
  });
