import { json } from '@sveltejs/kit';
import { HandSchema } from '@kerbe/machine/kinds/hands';
import { MOST_BYTES, taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { lend, look } from '$lib/server/stand-in';

/** What someone beside the simulated machine sees. */
export const GET = ({ params }) => answer(async () => json(await look(params.bench)));

/** What someone does there, since nobody stands at it. */
export const POST = ({ params, request }) =>
  answer(async () => json(await lend(params.bench, await taken(request, HandSchema, MOST_BYTES.bit))));
