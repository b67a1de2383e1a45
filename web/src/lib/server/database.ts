import { Kysely, Migrator, PostgresDialect } from 'kysely';
import pg from 'pg';
import * as jobs from './migrations/001-jobs.ts';
import * as shop from './migrations/002-shop.ts';
import * as runs from './migrations/003-runs.ts';
import * as runLines from './migrations/004-run-lines.ts';
import type { Tables } from './tables.ts';

export const MIGRATIONS = { '001-jobs': jobs, '002-shop': shop, '003-runs': runs, '004-run-lines': runLines };

/** Opens a database. */
export function openDatabase(url: string): Kysely<Tables> {
  return new Kysely<Tables>({ dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: url, max: 8 }) }) });
}

/**
 * Brings the tables up to date, or up to one migration. Forward only.
 * @throws what the failed migration threw; the database stays as it was before that migration.
 */
export async function migrate(db: Kysely<Tables>, upTo?: keyof typeof MIGRATIONS): Promise<string[]> {
  const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } });
  const { error, results } = upTo ? await migrator.migrateTo(upTo) : await migrator.migrateToLatest();
  if (error) throw error;
  return (results ?? []).map((result) => result.migrationName);
}
