import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { keepLag } from '$lib/server/inventory';
import { shop } from '$lib/server/shop';

const LagSchema = z.object({ lag: z.number().min(0).max(0.1) }).strict();

/** Keeps how late the beam of a bench comes, s, as a strip has found it. */
export const PUT = ({ params, request }) =>
  answer(async () => {
    const { lag } = await taken(request, LagSchema);
    const bench = await keepLag(await shop(), params.bench, lag);
    return bench ? json(bench) : json({ problem: 'There is no such bench in this shop.' }, { status: 404 });
  });
