import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Kysely } from 'kysely';
import { z } from 'zod';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { BenchSchema } from '@kerbe/core/machines/bench-schema';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { keepAsset } from './assets.ts';
import { createJob } from './jobs.ts';
import type { Tables } from './tables.ts';

/** Adds the benches of the demo shop that the shop does not know: their machines are there. */
export async function addDemoBenches(db: Kysely<Tables>, folder: string): Promise<void> {
  const benches = z.array(BenchSchema).parse(JSON.parse(readFileSync(join(folder, 'benches.json'), 'utf8')));
  await db
    .insertInto('benches')
    .values(benches.map((bench, position) => ({ id: bench.id, position, document: JSON.stringify(bench) })))
    .onConflict((c) => c.doNothing())
    .execute();
}

/** Loads the demo shop into an empty database: its bits, benches and jobs. Does nothing where there are bits already. */
export async function loadDemoShop(db: Kysely<Tables>, folder: string): Promise<boolean> {
  if (await db.selectFrom('bits').select('id').executeTakeFirst()) return false;
  const read = (name: string): unknown => JSON.parse(readFileSync(join(folder, name), 'utf8'));
  const bits = z.array(ToolSchema).parse(read('bits.json'));
  await db
    .insertInto('bits')
    .values(bits.map((bit, position) => ({ id: bit.id, position, document: JSON.stringify(bit) })))
    .execute();
  await addDemoBenches(db, folder);
  // The list shows the job made last first.
  for (const name of z.array(z.string()).parse(read('jobs.json'))) {
    const file = readJobFile(readFileSync(join(folder, 'jobs', `${name}.kerbe.json`), 'utf8'));
    for (const asset of Object.values(file.assets)) await keepAsset(db, asset.name, bytesFromBase64(asset.base64));
    await createJob(db, file.job, name);
  }
  return true;
}
