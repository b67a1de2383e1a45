import type { Kysely } from 'kysely';

/** The shop's bits and benches. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const table of ['bits', 'benches'])
    await db.schema
      .createTable(table)
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('position', 'integer', (c) => c.notNull())
      .addColumn('document', 'jsonb', (c) => c.notNull())
      .execute();
}
