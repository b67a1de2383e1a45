import { json } from '@sveltejs/kit';
import { answer, Revision } from '$lib/server/door';
import { revisionOf } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';

/** The job document as it was at one revision. */
export const GET = ({ params }) =>
  answer(async () => json({ job: await revisionOf(await shop(), params.id, Revision.parse(params.revision)) }));
