import { access } from 'node:fs/promises';
import { join } from 'node:path';
import type { Kysely } from 'kysely';
import { version } from '$app/environment';
import { PLAIN, type Variant } from '@kerbe/core/machines/program-variant';
import { config } from './config.ts';
import { heavy } from './heavy/heavy.ts';
import { keepResult, keptResult } from './made.ts';
import type { MadePrograms } from './programs.ts';
import type { Tables } from './tables.ts';

/**
 * The programs of one revision of a job, made in a process of its own unless they were made before.
 * @param user whose turn that takes. @param signal ends it where nobody waits any more.
 */
export async function programsOf(
  db: Kysely<Tables>,
  id: string,
  revision: string,
  user: string,
  signal: AbortSignal,
  variant: Variant = PLAIN,
): Promise<MadePrograms> {
  const date = new Date().toISOString().slice(0, 10);
  const text = JSON.stringify(variant);
  const key = `programs/${version}/${id}/${revision}/${date}/${text}`;
  const kept = await keptResult<MadePrograms>(db, key);
  if (kept && (await allThere(kept))) return kept;
  const made = await heavy().do('programs', [id, revision, date, text], user, signal);
  await keepResult(db, key, made);
  return made;
}

async function allThere({ programs }: MadePrograms): Promise<boolean> {
  const files = programs.map(({ hash }) => access(join(config().KERBE_PROGRAMS, `${hash}.nc`)));
  return Promise.all(files).then(
    () => true,
    () => false,
  );
}
