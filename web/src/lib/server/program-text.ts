import type { Kysely } from 'kysely';
import type { Tables } from './tables.ts';

/** The file name of a kept program; undefined where none has that hash. */
export async function programName(db: Kysely<Tables>, hash: string): Promise<string | undefined> {
  return (await db.selectFrom('programs').select('name').where('hash', '=', hash).executeTakeFirst())?.name;
}

/** The text of a kept program. */
export async function programText(db: Kysely<Tables>, hash: string): Promise<string> {
  return (await db.selectFrom('programs').select('text').where('hash', '=', hash).executeTakeFirstOrThrow()).text;
}
