import { json } from '@sveltejs/kit';
import { text } from '@kerbe/core/schema/text';
import { MOST_BYTES, spooled } from '$lib/server/body';
import { answer, turnOf } from '$lib/server/door';
import { heavy } from '$lib/server/heavy/heavy';

const Name = text(1000);

/** Keeps a drawing, after reading it once, in a process of its own, to be sure that it is one. */
export const POST = ({ request, url, locals }) =>
  answer(async () => {
    const name = Name.parse(url.searchParams.get('name') ?? 'drawing.svg').slice(0, 120);
    return spooled(request, MOST_BYTES.asset, async (file) =>
      json(await heavy().do('drawing', [file, name], turnOf(request), locals.left)),
    );
  });
