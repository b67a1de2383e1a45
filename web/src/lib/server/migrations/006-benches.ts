import { type Kysely, sql } from 'kysely';

/** Runs go by the id of their bench, and each bench's journal has a mark of its own. There was one linked bench before. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('runs')
    .addColumn('bench_id', 'text', (c) => c.notNull().defaultTo('dome-workshop'))
    .execute();
  await db.schema
    .alterTable('runs')
    .alterColumn('bench_id', (c) => c.dropDefault())
    .execute();
  await sql`update marks set name = 'journal/dome-workshop' where name = 'journal'`.execute(db);
}
