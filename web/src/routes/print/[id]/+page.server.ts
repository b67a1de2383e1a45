import { heavy } from '$lib/server/heavy/heavy';
import { openJob } from '$lib/server/jobs';
import { loaded } from '$lib/server/loaded';
import { shop } from '$lib/server/shop';

/** A job's artwork at full size, as it was kept last. */
export const load = ({ params, locals }) =>
  loaded(async () => {
    const { job, revision } = await openJob(await shop(), params.id);
    const { name, stock, unit } = job;
    return {
      name,
      unit,
      revision,
      material: stock.material,
      length: stock.length,
      width: stock.width,
      drawn: await heavy().do('print', [params.id, revision], 'print', locals.left),
    };
  });
