import { type Kysely, sql } from 'kysely';

/** What was computed, by what it was computed from, so that nothing is computed twice. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('made')
    .addColumn('key', 'text', (c) => c.primaryKey())
    .addColumn('result', 'jsonb', (c) => c.notNull())
    .addColumn('made', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
}
