import type { Kysely } from 'kysely';

/** Nobody knew any more which line the machine was at when a run ended: it cannot be taken up at one. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('runs')
    .addColumn('line_unknown', 'boolean', (column) => column.notNull().defaultTo(false))
    .execute();
}
