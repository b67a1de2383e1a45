import type { CutJob } from '@kerbe/core/job/job';
import { createHash } from 'node:crypto';
import type { Kysely } from 'kysely';
import type { JobFile } from '@kerbe/core/job/job-file';
import type { Tables } from './tables.ts';

export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Keeps bytes under their SHA-256, once. */
export async function keepAsset(db: Kysely<Tables>, name: string, bytes: Uint8Array): Promise<string> {
  const hash = hashOf(bytes);
  await db
    .insertInto('assets')
    .values({ hash, name, bytes: Buffer.from(bytes) })
    .onConflict((c) => c.doNothing())
    .execute();
  return hash;
}

export function assetsOf(job: CutJob): string[] {
  return [...new Set(job.artwork.flatMap((item) => (item.kind === 'drawing' ? [item.asset] : [])))];
}

/** The artwork files a job refers to, with their names. */
export async function loadAssets(
  db: Kysely<Tables>,
  hashes: readonly string[],
): Promise<Map<string, { name: string; bytes: Buffer }>> {
  if (hashes.length === 0) return new Map();
  const rows = await db.selectFrom('assets').selectAll().where('hash', 'in', hashes).execute();
  return new Map(rows.map((row) => [row.hash, { name: row.name, bytes: row.bytes }]));
}

/** The same for a job file. */
export async function assetsForFile(db: Kysely<Tables>, job: CutJob): Promise<JobFile['assets']> {
  const assets = await loadAssets(db, assetsOf(job));
  return Object.fromEntries(
    [...assets].map(([hash, { name, bytes }]) => [hash, { name, base64: bytes.toString('base64') }]),
  );
}
