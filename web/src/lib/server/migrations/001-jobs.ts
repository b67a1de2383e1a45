import { type Kysely, sql } from 'kysely';

/** Jobs, their revisions (append-only) and imported artwork. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('jobs')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('head', 'bigint')
    .addColumn('created', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
  await db.schema
    .createTable('revisions')
    .addColumn('id', 'bigint', (c) => c.primaryKey().generatedAlwaysAsIdentity())
    .addColumn('job_id', 'text', (c) => c.notNull().references('jobs.id'))
    .addColumn('parent', 'bigint', (c) => c.references('revisions.id'))
    .addColumn('document', 'jsonb', (c) => c.notNull())
    .addColumn('created', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
  await db.schema.createIndex('revisions_by_parent').on('revisions').columns(['job_id', 'parent']).execute();
  await db.schema.alterTable('jobs').addForeignKeyConstraint('jobs_head', ['head'], 'revisions', ['id']).execute();
  await db.schema
    .createTable('assets')
    .addColumn('hash', 'text', (c) => c.primaryKey())
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('bytes', 'bytea', (c) => c.notNull())
    .addColumn('created', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
}
