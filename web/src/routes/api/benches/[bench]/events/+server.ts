import { FromSchema } from '@kerbe/machine/runner/commands';
import { answer } from '$lib/server/door';
import { runnerEvents } from '$lib/server/runner-client';

/** What the runner of a bench does, as server-sent events; the page is there for as long as it listens. */
export const GET = ({ params, request, url }) =>
  answer(async () => {
    const { page } = FromSchema.parse({ page: url.searchParams.get('page') });
    return new Response(await runnerEvents(params.bench, [page], request.signal), {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
    });
  });
