import { type CutJob, JobSchema } from '@kerbe/core/job/job';

/** A job as it was changed, until the server has it: a page that ends in between loses nothing. */
interface Unsaved {
  /** The page that changed it. */
  page: string;
  /** The revision that was changed. */
  base: string;
  job: CutJob;
}

/** This page, by a lock that it holds as long as it lives: what a page that lives has not saved is its own. */
const PAGE = crypto.randomUUID();
const lockOf = (page: string) => `kerbe-page ${page}`;
void navigator.locks?.request(lockOf(PAGE), () => new Promise(() => {}));

const nameOf = (id: string) => `kerbe-unsaved ${id}`;

/** Keeps what the server does not have yet. A browser that keeps nothing goes on without. */
export function keepUnsaved(id: string, base: string, job: CutJob): void {
  try {
    localStorage.setItem(nameOf(id), JSON.stringify({ page: PAGE, base, job } satisfies Unsaved));
  } catch {
    // Full, or not allowed here.
  }
}

export function dropUnsaved(id: string): void {
  try {
    localStorage.removeItem(nameOf(id));
  } catch {
    // As above.
  }
}

/** What a page that is gone did not get to the server; nothing where it did, or where it cannot be read. */
export async function unsavedOf(id: string): Promise<Unsaved | undefined> {
  try {
    const { page, base, job } = JSON.parse(localStorage.getItem(nameOf(id)) ?? '{}') as Partial<Unsaved>;
    const parsed = JobSchema.safeParse(job);
    if (page === undefined || base === undefined || !parsed.success) return undefined;
    const gone = await navigator.locks.request(lockOf(page), { ifAvailable: true }, (lock) => lock !== null);
    return gone ? { page, base, job: parsed.data } : undefined;
  } catch {
    return undefined;
  }
}
