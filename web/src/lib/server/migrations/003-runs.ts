import { type Kysely, sql } from 'kysely';

/** Programs, kept for ever under their hash, and runs, which name the program they ran. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('programs')
    .addColumn('hash', 'text', (c) => c.primaryKey())
    .addColumn('job_id', 'text', (c) => c.notNull().references('jobs.id'))
    .addColumn('revision_id', 'bigint', (c) => c.notNull().references('revisions.id'))
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('text', 'text', (c) => c.notNull())
    .addColumn('cuts', 'jsonb', (c) => c.notNull())
    .addColumn('minutes', 'double precision', (c) => c.notNull())
    .addColumn('created', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
  await db.schema
    .createTable('runs')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('job_id', 'text', (c) => c.notNull().references('jobs.id'))
    .addColumn('program_hash', 'text', (c) => c.notNull().references('programs.hash'))
    .addColumn('bench', 'text', (c) => c.notNull())
    .addColumn('phase', 'text', (c) => c.notNull())
    .addColumn('why', 'text')
    .addColumn('planned_minutes', 'double precision', (c) => c.notNull())
    .addColumn('minutes', 'double precision')
    .addColumn('settings', 'jsonb', (c) => c.notNull())
    .addColumn('note', 'text', (c) => c.notNull().defaultTo(''))
    .addColumn('started', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .addColumn('ended', 'timestamptz')
    .execute();
  await db.schema.createIndex('runs_by_job').on('runs').columns(['job_id', 'started']).execute();
  await db.schema
    .createTable('marks')
    .addColumn('name', 'text', (c) => c.primaryKey())
    .addColumn('value', 'text', (c) => c.notNull())
    .execute();
}
