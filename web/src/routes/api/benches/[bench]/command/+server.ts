import { json } from '@sveltejs/kit';
import { PageCommandSchema } from '@kerbe/machine/runner/commands';
import { tellBench } from '$lib/server/bench-commands';
import { taken } from '$lib/server/body';
import { answer, asker } from '$lib/server/door';
import { shop } from '$lib/server/shop';

/** Passes a command to a bench. Runs are started through their job, so that the log knows of them. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const command = await taken(request, PageCommandSchema);
    return json(await tellBench(params.bench, shop, command, asker(request)));
  });
