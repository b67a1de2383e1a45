import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { taken } from '$lib/server/body';
import { answer, Revision, turnOf } from '$lib/server/door';
import { programsOf } from '$lib/server/made-programs';
import { shop } from '$lib/server/shop';

/** Makes the programs of a revision and keeps them; answers with their names and hashes. */
export const POST = ({ params, request, locals }) =>
  answer(async () => {
    const { revision } = await taken(request, z.object({ revision: Revision }));
    const { programs } = await programsOf(await shop(), params.id, revision, turnOf(request), locals.left);
    return json({
      programs: programs.map(({ hash, name, bit, minutes, lines }) => ({ hash, name, bit, minutes, lines })),
    });
  });
