import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { FRAMES } from '@kerbe/core/sequence/framing-cut';
import { TAKEN_UP_BY } from '@kerbe/core/sequence/taken-up';
import { taken } from '$lib/server/body';
import { answer, asker, Revision } from '$lib/server/door';
import { checkBroken, checkRest, checkRun } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

const CheckSchema = z.union([
  z
    .object({
      revision: Revision,
      which: z.number().int().min(0).max(1000),
      dry: z.boolean().default(false),
      frame: z.enum(FRAMES).default('paths'),
      /** The first stroke to be made, of those that pierce, from 0. */
      from: z.number().int().min(0).max(1_000_000).default(0),
    })
    .strict(),
  z.object({ broken: z.uuid(), by: z.enum(TAKEN_UP_BY) }).strict(),
  z.object({ broken: z.uuid() }).strict(),
]);

/** Has a program of the job, or the one of a run that broke off, checked on the bench; a start names what was found. */
export const POST = ({ params, request, locals }) =>
  answer(async () => {
    const asked = await taken(request, CheckSchema);
    const db = await shop();
    const from = asker(request);
    if ('by' in asked) return json(await checkRest(db, params.id, asked.broken, asked.by, from, locals.left));
    if ('broken' in asked) return json({ checked: await checkBroken(db, params.id, asked.broken, from) });
    const { revision, which, ...how } = asked;
    return json(await checkRun(db, params.id, revision, which, from, locals.left, how));
  });
