import type { Kysely } from 'kysely';
import { config } from './config.ts';
import { migrate, MIGRATED_WITHIN, openDatabase } from './database.ts';
import { addDemoBenches, loadDemoShop } from './demo-shop.ts';
import { drawMissingThumbnails } from './kept-thumbnails.ts';
import { log } from './log.ts';
import { forgetOldResults } from './made.ts';
import { syncRuns } from './runs.ts';
import type { Tables } from './tables.ts';

let opened: Promise<Kysely<Tables>> | undefined;

/** The shop's database, brought up to date and filled with the demo shop when it is empty. */
export function shop(): Promise<Kysely<Tables>> {
  opened ??= open().catch((error: unknown) => {
    // Tried anew by whoever asks next.
    opened = undefined;
    throw error;
  });
  return opened;
}

async function open(): Promise<Kysely<Tables>> {
  const { DATABASE_URL, DATABASE_OWNER_URL = DATABASE_URL, KERBE_DEMO } = config();
  const owner = openDatabase(DATABASE_OWNER_URL, 1, { answer: MIGRATED_WITHIN });
  const done = await migrate(owner).finally(() => owner.destroy());
  const db = openDatabase(DATABASE_URL);
  try {
    if (done.length) log.info({ migrations: done }, 'database brought up to date');
    if (await loadDemoShop(db, KERBE_DEMO)) log.info('demo shop loaded');
    else await addDemoBenches(db, KERBE_DEMO);
    await forgetOldResults(db);
  } catch (error) {
    await db.destroy();
    throw error;
  }
  drawMissingThumbnails(db).catch((error: unknown) => log.warn({ error: String(error) }, 'pictures were not drawn'));
  let quiet = false;
  setInterval(() => {
    syncRuns(db).then(
      () => (quiet = false),
      (error: unknown) => {
        if (!quiet) log.warn({ error: String(error) }, 'runs could not be read from the runner');
        quiet = true;
      },
    );
  }, 1000).unref();
  return db;
}
