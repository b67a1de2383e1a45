import { json } from '@sveltejs/kit';
import { answer, Revision } from '$lib/server/door';
import { thumbnailOf } from '$lib/server/kept-thumbnails';
import { shop } from '$lib/server/shop';

/** A job's picture for the list, of one revision. */
export const GET = ({ params, url, locals }) =>
  answer(async () => {
    const revision = Revision.parse(url.searchParams.get('revision'));
    return json(await thumbnailOf(await shop(), params.id, revision, locals.left));
  });
