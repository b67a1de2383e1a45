import { z } from 'zod';
import { FromSchema } from '@kerbe/machine/runner/commands';
import { benchEvents } from '$lib/server/all-benches';
import { answer } from '$lib/server/door';

const { page } = FromSchema.shape;
/** “PAGE” or “PAGE:BENCH”. */
const PageAtSchema = z
  .string()
  .max(130)
  .transform((text) => {
    const colon = text.indexOf(':');
    return colon < 0 ? { page: text } : { page: text.slice(0, colon), bench: text.slice(colon + 1) };
  })
  .pipe(z.object({ page, bench: z.string().max(60).optional() }));
const PagesSchema = z.array(PageAtSchema).min(1).max(200);

/** What all linked benches are at, and all that those do which these pages follow, as server-sent events in one stream. */
export const GET = ({ request, url }) =>
  answer(async () => {
    const pages = PagesSchema.parse(url.searchParams.getAll('at'));
    return new Response(benchEvents(pages, request.signal), {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
    });
  });
