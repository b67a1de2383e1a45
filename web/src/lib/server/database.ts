import { Kysely, Migrator, PostgresDialect } from 'kysely';
import pg from 'pg';
import { log } from './log.ts';
import * as jobs from './migrations/001-jobs.ts';
import * as shop from './migrations/002-shop.ts';
import * as runs from './migrations/003-runs.ts';
import * as runLines from './migrations/004-run-lines.ts';
import * as made from './migrations/005-made.ts';
import * as benches from './migrations/006-benches.ts';
import * as stopped from './migrations/007-stopped.ts';
import * as lineUnknown from './migrations/008-line-unknown.ts';
import * as redo from './migrations/009-redo.ts';
import type { Tables } from './tables.ts';

export const MIGRATIONS = {
  '001-jobs': jobs,
  '002-shop': shop,
  '003-runs': runs,
  '004-run-lines': runLines,
  '005-made': made,
  '006-benches': benches,
  '007-stopped': stopped,
  '008-line-unknown': lineUnknown,
  '009-redo': redo,
};

/** Nobody who asks by the page waits longer than this for a connection or an answer, ms. */
const WITHIN = 8000;
/** Migrations of a large database may take so long, ms. */
export const MIGRATED_WITHIN = 600_000;

/**
 * Opens a database. What is lost of its connections is told where one is used next.
 * @param most connections at a time.
 * @param within longest wait for a connection, and for an answer, ms.
 */
export function openDatabase(
  url: string,
  most = 8,
  within: { connection?: number; answer?: number } = {},
): Kysely<Tables> {
  const { connection = WITHIN, answer = WITHIN } = within;
  const pool = new pg.Pool({
    connectionString: url,
    max: most,
    connectionTimeoutMillis: connection,
    query_timeout: answer,
    statement_timeout: answer,
    keepAlive: true,
  });
  // Without a listener the loss of a connection would end the process: of an idle one, and of one between two questions.
  const lost = (error: Error) => log.warn({ error: String(error) }, 'a connection to the database was lost');
  pool.on('error', lost);
  pool.on('connect', (client) => client.on('error', lost));
  return new Kysely<Tables>({ dialect: new PostgresDialect({ pool }) });
}

let once: Kysely<Tables> | undefined;

/** The shop's database for a process that does one thing at a time. */
export function openOnce(): Kysely<Tables> {
  once ??= openDatabase(process.env.DATABASE_URL!, 2);
  return once;
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
