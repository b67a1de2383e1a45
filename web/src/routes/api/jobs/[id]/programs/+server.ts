import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { answer, Revision, taken } from '$lib/server/door';
import { makePrograms } from '$lib/server/programs';
import { shop } from '$lib/server/shop';

/** Makes the programs of a revision and keeps them; answers with their names and hashes. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const { revision } = await taken(request, z.object({ revision: Revision }));
    const { programs } = await makePrograms(await shop(), params.id, revision);
    return json({ programs: programs.map(({ hash, name, minutes, lines }) => ({ hash, name, minutes, lines })) });
  });
