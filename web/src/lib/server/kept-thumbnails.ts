import type { Kysely } from 'kysely';
import { version } from '$app/environment';
import { heavy } from './heavy/heavy.ts';
import { listJobs } from './jobs.ts';
import { log } from './log.ts';
import { keepResult, keptResult } from './made.ts';
import { Refused } from './refusal.ts';
import type { Tables } from './tables.ts';
import type { Thumbnail } from './thumbnails.ts';

const keyOf = (revision: string) => `thumbnail/${version}/${revision}`;

/** Thumbnails that were drawn before, by their revision. */
export async function keptThumbnails(
  db: Kysely<Tables>,
  revisions: readonly string[],
): Promise<Map<string, Thumbnail>> {
  if (revisions.length === 0) return new Map();
  const rows = await db.selectFrom('made').selectAll().where('key', 'in', revisions.map(keyOf)).execute();
  return new Map(rows.map(({ key, result }) => [key.slice(keyOf('').length), result as Thumbnail]));
}

/** A job's thumbnail, drawn in a process of its own unless it was before. */
export async function thumbnailOf(
  db: Kysely<Tables>,
  id: string,
  revision: string,
  signal: AbortSignal,
): Promise<Thumbnail> {
  const known = await keptResult<Thumbnail>(db, keyOf(revision));
  if (known) return known;
  let drawn: Thumbnail;
  try {
    drawn = await heavy().do('thumbnail', [id, revision], 'thumbnails', signal);
  } catch (error) {
    // What was too much once is too much the next time: the job is listed without a picture from here on.
    if (!(error instanceof Refused && error.status === 422)) throw error;
    drawn = [];
  }
  await keepResult(db, keyOf(revision), drawn);
  return drawn;
}

/** Draws what is still without a picture, so that it is there when someone looks at the list. */
export async function drawMissingThumbnails(db: Kysely<Tables>): Promise<void> {
  const jobs = await listJobs(db);
  const kept = await keptThumbnails(
    db,
    jobs.map(({ revision }) => revision),
  );
  const never = new AbortController().signal;
  for (const { id, revision } of jobs)
    if (!kept.has(revision))
      await thumbnailOf(db, id, revision, never).catch((error: unknown) =>
        log.warn({ job: id, error: String(error) }, 'a picture was not drawn'),
      );
}
