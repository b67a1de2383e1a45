import { z } from 'zod';
import { FromSchema } from '@kerbe/machine/runner/commands';
import { benchEvents } from '$lib/server/all-benches';
import { answer } from '$lib/server/door';

const Followed = z.string().max(60).optional();

/** What all linked benches are at, and all that the followed one does, as server-sent events in one stream. */
export const GET = ({ request, url }) =>
  answer(async () => {
    const { page } = FromSchema.parse({ page: url.searchParams.get('page') });
    const followed = Followed.parse(url.searchParams.get('bench') ?? undefined);
    return new Response(benchEvents(followed, page, request.signal), {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
    });
  });
