import { keptThumbnails } from '$lib/server/kept-thumbnails';
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
    return { jobs: jobs.map((job) => ({ ...job, thumbnail: thumbnails.get(job.revision) })) };
  });
