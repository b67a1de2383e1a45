import { FromSchema } from '@kerbe/machine/runner/commands';
import { answer } from '$lib/server/door';
import { runnerEvents } from '$lib/server/runner-client';

/** What the bench runner does, as server-sent events; the page is there for as long as it listens. */
export const GET = ({ request, url }) =>
  answer(async () => {
    const { page } = FromSchema.parse({ page: url.searchParams.get('page') });
    return new Response(await runnerEvents(page, request.signal), {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
    });
  });
