import { thickest } from '@kerbe/core/stock/stock';
import { listJobs } from '$lib/server/jobs';
import { shop } from '$lib/server/shop';
import { thumbnailOf } from '$lib/server/thumbnails';

export const load = async () => {
  const db = await shop();
  const rows = await listJobs(db);
  const thumbnails = await Promise.all(rows.map(({ revision, job }) => thumbnailOf(db, revision, job)));
  return {
    jobs: rows.map(({ id, job, changed, runs }, index) => ({
      id,
      name: job.name,
      unit: job.unit,
      material: job.stock.material,
      length: job.stock.length,
      width: job.stock.width,
      thickness: thickest(job.stock),
      cuts: job.cuts.length,
      changed: changed.toISOString(),
      runs,
      thumbnail: thumbnails[index],
    })),
  };
};
