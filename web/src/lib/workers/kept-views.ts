import { createStore, delMany, get, set, update } from 'idb-keyval';
import type { CutJob } from '@kerbe/core/job/job';
import type { ItemView, JobView } from './job-view.ts';

/** What a job came to, as it is kept in the browser. */
export interface KeptView {
  items: ItemView[];
  view: JobView;
}

/** Results kept; those that were used longest ago go first. */
const MOST = 12;
/** A result of more points than this is worked out anew. */
const LARGEST = 4_000_000;

const store = () => createStore('kerbe-results', 'views');
/** Under this name stand the names of what is kept, the newest first. */
const NEWEST = 'newest';

/** An object whose members are told in the order of their names, whoever made it. */
const inOrder = (_: string, value: unknown) =>
  value && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;

/** What a job is known by: all that is in it, and the build that computes it. */
async function keyOf(job: CutJob): Promise<string> {
  const text = new TextEncoder().encode(`${self.location.href} ${JSON.stringify(job, inOrder)}`);
  return Array.from(new Uint8Array(await crypto.subtle.digest('SHA-256', text)), (byte) =>
    byte.toString(16).padStart(2, '0'),
  ).join('');
}

/** What a job came to when it was computed last, as it is now; nothing where it was not, or nothing can be kept. */
export async function keptView(job: CutJob): Promise<KeptView | undefined> {
  try {
    return await get<KeptView>(await keyOf(job), store());
  } catch {
    return undefined;
  }
}

/** Keeps what a job came to. A browser that keeps nothing computes it anew. */
export async function keepView(job: CutJob, items: ItemView[], view: JobView): Promise<void> {
  const pictures = [
    ...items.map(({ lines }) => lines),
    ...view.cuts.flatMap(({ marks }) => marks.map(({ lines }) => lines)),
  ];
  // A place of a picture takes an eighth of what a point does.
  const places = pictures.reduce((sum, { raster }) => sum + (raster?.dark.length ?? 0) / 8, 0);
  const size = [...items.map(({ lines }) => lines), ...view.cuts.flatMap(({ way, links }) => [way, links])];
  if (size.reduce((sum, { points }) => sum + points.length / 2, places) > LARGEST) return;
  try {
    const key = await keyOf(job);
    const own = store();
    await set(key, { items, view } satisfies KeptView, own);
    let old: string[] = [];
    await update<string[]>(
      NEWEST,
      (before = []) => {
        const all = [key, ...before.filter((name) => name !== key)];
        old = all.slice(MOST);
        return all.slice(0, MOST);
      },
      own,
    );
    await delMany(old, own);
  } catch {
    // Full, or not allowed here.
  }
}
