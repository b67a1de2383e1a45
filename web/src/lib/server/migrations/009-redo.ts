import { type Kysely, sql } from 'kysely';

/**
 * Where redo goes from a revision: the one that undo came from. Until now it went to the latest that followed, which may have
 * been another window’s, kept aside.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('revisions')
    .addColumn('forward', 'bigint', (column) => column.references('revisions.id'))
    .execute();
  await sql`update revisions set forward =
    (select max(later.id) from revisions as later where later.parent = revisions.id and later.job_id = revisions.job_id)`.execute(
    db,
  );
}
