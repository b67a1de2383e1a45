import { json } from '@sveltejs/kit';
import { answer } from '$lib/server/door';
import { benchStates } from '$lib/server/runner-client';

/** The linked benches, and what each is at. */
export const GET = () => answer(async () => json({ benches: await benchStates() }));
