import { json } from '@sveltejs/kit';
import { answer } from '$lib/server/door';
import { benchStates, pressDoors } from '$lib/server/runner-client';

/** The linked benches, what each is at, and where a page sends Hold and Stop straight to it. */
export const GET = () => answer(async () => json({ benches: await benchStates(), doors: pressDoors() }));
