import type { Kysely } from 'kysely';

/** Where a run ended, from zero: what is cut by an arc is taken up beside that place. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('runs').addColumn('stopped_at', 'jsonb').execute();
}
