import { BitSchema } from '@kerbe/core/document/bit';
import { BenchSchema } from '@kerbe/core/document/bench';
import { openJob } from '$lib/server/jobs';
import { loaded } from '$lib/server/loaded';
import { shop } from '$lib/server/shop';

export const load = ({ params }) =>
  loaded(async () => {
    const db = await shop();
    const open = await openJob(db, params.id);
    const bits = await db.selectFrom('bits').select('document').orderBy('position').execute();
    const benches = await db.selectFrom('benches').select('document').orderBy('position').execute();
    const { n } = await db
      .selectFrom('runs')
      .select((eb) => eb.fn.countAll<string>().as('n'))
      .where('job_id', '=', params.id)
      .executeTakeFirstOrThrow();
    return {
      open,
      bits: bits.map((row) => BitSchema.parse(row.document)),
      benches: benches.map((row) => BenchSchema.parse(row.document)),
      runs: Number(n),
    };
  });
