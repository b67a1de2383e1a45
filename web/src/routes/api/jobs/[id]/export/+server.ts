import { writeJobFile } from '@kerbe/core/job/job-file';
import { assetsForFile } from '$lib/server/assets';
import { answer } from '$lib/server/door';
import { openJob } from '$lib/server/jobs';
import { fileName } from '$lib/server/programs';
import { shop } from '$lib/server/shop';

/** The job as a file, with its artwork. */
export const GET = ({ params }) =>
  answer(async () => {
    const db = await shop();
    const { job } = await openJob(db, params.id);
    return new Response(writeJobFile(job, await assetsForFile(db, job)), {
      headers: {
        'content-type': 'application/json',
        'content-disposition': `attachment; filename="${fileName(job.name)}.kerbe.json"`,
      },
    });
  });
