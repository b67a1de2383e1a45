import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';
import { taken } from '$lib/server/body';
import { answer, asker } from '$lib/server/door';
import { runsOf, startRun } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

export const GET = ({ params }) => answer(async () => json({ runs: await runsOf(await shop(), params.id) }));

const StartSchema = z.object({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  /** Of the check whose findings were shown. */
  token: text(60),
  /** Without a line it is what is left of that run, a program of its own. */
  takeUp: z.object({ run: z.uuid(), line: z.number().int().min(0).max(10_000_000).optional() }).optional(),
});

/** Starts the program that was checked, or takes up a run of it that broke off. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const start = await taken(request, StartSchema);
    return json({ id: await startRun(await shop(), params.id, start, asker(request)) });
  });
