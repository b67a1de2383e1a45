import { benchesOf, bitsOf } from '$lib/server/inventory';
import { openJob } from '$lib/server/jobs';
import { loaded } from '$lib/server/loaded';
import { countRuns } from '$lib/server/runs';
import { shop } from '$lib/server/shop';

export const load = ({ params }) =>
  loaded(async () => {
    const db = await shop();
    return {
      open: await openJob(db, params.id),
      bits: await bitsOf(db),
      benches: await benchesOf(db),
      runs: await countRuns(db, params.id),
    };
  });
