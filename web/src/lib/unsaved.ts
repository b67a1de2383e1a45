import { type CutJob, JobSchema } from '@kerbe/core/job/job';

/** A job as it was changed, until the server has it: a page that ends in between loses nothing. */
interface Unsaved {
  /** The revision that was changed. */
  base: string;
  job: CutJob;
}

const nameOf = (id: string) => `kerbe-unsaved ${id}`;

/** Keeps what the server does not have yet. A browser that keeps nothing goes on without. */
export function keepUnsaved(id: string, base: string, job: CutJob): void {
  try {
    localStorage.setItem(nameOf(id), JSON.stringify({ base, job } satisfies Unsaved));
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

/** What an earlier page did not get to the server; nothing where it did, or where it cannot be read. */
export function unsavedOf(id: string): Unsaved | undefined {
  try {
    const { base, job } = JSON.parse(localStorage.getItem(nameOf(id)) ?? '{}') as Partial<Unsaved>;
    const parsed = JobSchema.safeParse(job);
    return base !== undefined && parsed.success ? { base, job: parsed.data } : undefined;
  } catch {
    return undefined;
  }
}
