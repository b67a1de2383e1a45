import { json } from '@sveltejs/kit';
import { MOST_BYTES, spooled } from '$lib/server/body';
import { answer, turnOf } from '$lib/server/door';
import { heavy } from '$lib/server/heavy/heavy';

/** Makes a job from a job file, read with all its artwork in a process of its own. */
export const POST = ({ request, locals }) =>
  answer(() =>
    spooled(request, MOST_BYTES.asset + MOST_BYTES.job, async (file) =>
      json(await heavy().do('jobFile', [file], turnOf(request), locals.left)),
    ),
  );
