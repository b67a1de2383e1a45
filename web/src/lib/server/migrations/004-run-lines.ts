import type { Kysely } from 'kysely';

/** What is true of a run: the last line made, the time spent waiting, where it began, and which run it took up. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('runs')
    .addColumn('line', 'integer')
    .addColumn('lines', 'integer')
    .addColumn('waited', 'double precision')
    .addColumn('from_line', 'integer')
    .addColumn('takes_up', 'text', (c) => c.references('runs.id'))
    .addColumn('operator', 'text', (c) => c.notNull().defaultTo(''))
    .execute();
}
