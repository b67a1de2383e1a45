import { keptThumbnails } from '$lib/server/kept-thumbnails';
import { benchesOf } from '$lib/server/inventory';
import { listJobs } from '$lib/server/jobs';
import { loaded } from '$lib/server/loaded';
import { shop } from '$lib/server/shop';

export const load = () =>
  loaded(async () => {
    const db = await shop();
    const jobs = await listJobs(db);
    const thumbnails = await keptThumbnails(
      db,
      jobs.map(({ revision }) => revision),
    );
    // Those that are not drawn yet the page asks for by itself.
    const benches = (await benchesOf(db)).map(({ id, name }) => ({ id, name }));
    return { benches, jobs: jobs.map((job) => ({ ...job, thumbnail: thumbnails.get(job.revision) })) };
  });
