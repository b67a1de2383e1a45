import { answer } from '$lib/server/door';
import { runnerEvents } from '$lib/server/runner-client';

/** What the bench runner does, as server-sent events. */
export const GET = ({ request }) =>
  answer(
    async () =>
      new Response(await runnerEvents(request.signal), {
        headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
      }),
  );
