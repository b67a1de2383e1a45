import { json } from '@sveltejs/kit';
import { HandSchema } from '@kerbe/machine/stand-in/hands';
import { taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { lend, look } from '$lib/server/stand-in';

/** What someone beside the simulated machine sees. */
export const GET = () => answer(async () => json(await look()));

/** What someone does there, since nobody stands at it. */
export const POST = ({ request }) => answer(async () => json(await lend(await taken(request, HandSchema))));
