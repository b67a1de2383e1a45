import type { Kysely } from 'kysely';
import type { Tables } from './tables.ts';

/** Results kept at most; the oldest go. */
const MOST = 5000;

/** What was computed before under a key. */
export async function keptResult<T>(db: Kysely<Tables>, key: string): Promise<T | undefined> {
  const row = await db.selectFrom('made').select('result').where('key', '=', key).executeTakeFirst();
  return row?.result as T | undefined;
}

/** Keeps what was computed under a key. */
export async function keepResult(db: Kysely<Tables>, key: string, result: unknown): Promise<void> {
  await db
    .insertInto('made')
    .values({ key, result: JSON.stringify(result) })
    .onConflict((c) => c.doNothing())
    .execute();
}

/** Forgets the oldest results beyond those that are kept. */
export async function forgetOldResults(db: Kysely<Tables>): Promise<void> {
  await db
    .deleteFrom('made')
    .where('key', 'not in', (eb) => eb.selectFrom('made').select('key').orderBy('made', 'desc').limit(MOST))
    .execute();
}
