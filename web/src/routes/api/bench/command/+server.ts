import { json } from '@sveltejs/kit';
import { CommandSchema } from '@kerbe/machine/runner/commands';
import { z } from 'zod';
import { config } from '$lib/server/config';
import { answer, taken } from '$lib/server/door';
import { tellRunner } from '$lib/server/runner-client';

/** Passes a command to the bench runner. Runs are started through their job, so that the log knows of them. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = await taken(request, z.union([z.object({ command: z.literal('connect') }).strict(), CommandSchema]));
    if (body.command === 'run') return json({ problem: 'A run is started from its job.' }, { status: 400 });
    const command = body.command === 'connect' ? { command: body.command, port: config().KERBE_STAND_IN_PORT } : body;
    return json(await tellRunner(command));
  });
