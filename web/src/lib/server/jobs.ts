import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import { type Job, JobSchema } from '@kerbe/core/job/job';
import type { Tables } from './tables.ts';

/** A job as a window works on it. */
export interface OpenJob {
  id: string;
  revision: string;
  job: Job;
  canUndo: boolean;
  canRedo: boolean;
}

export type SaveOutcome = { saved: true; open: OpenJob } | { saved: false; mine: string; theirs: OpenJob };

export class NoSuchJob extends Error {
  override name = 'NoSuchJob';
  constructor() {
    super('This job does not exist; go back to the list of jobs.');
  }
}

type Db = Kysely<Tables>;

/** Makes a job from a document. */
export async function createJob(db: Db, job: Job, id = randomUUID().slice(0, 8)): Promise<OpenJob> {
  await db.transaction().execute(async (t) => {
    await t.insertInto('jobs').values({ id, head: null }).execute();
    const { id: revision } = await t
      .insertInto('revisions')
      .values({ job_id: id, parent: null, document: JSON.stringify(job) })
      .returning('id')
      .executeTakeFirstOrThrow();
    await t.updateTable('jobs').set({ head: revision }).where('id', '=', id).execute();
  });
  return openJob(db, id);
}

export async function openJob(db: Db, id: string): Promise<OpenJob> {
  const row = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['revisions.id as revision', 'revisions.parent', 'revisions.document'])
    .select((eb) =>
      eb.exists(eb.selectFrom('revisions as r').whereRef('r.parent', '=', 'jobs.head').select('r.id')).as('canRedo'),
    )
    .where('jobs.id', '=', id)
    .executeTakeFirst();
  if (!row) throw new NoSuchJob();
  return {
    id,
    revision: row.revision,
    job: JobSchema.parse(row.document),
    canUndo: row.parent !== null,
    canRedo: Boolean(row.canRedo),
  };
}

/** One revision of a job. */
export async function revisionOf(db: Db, id: string, revision: string): Promise<Job> {
  const row = await db
    .selectFrom('revisions')
    .select('document')
    .where('job_id', '=', id)
    .where('id', '=', revision)
    .executeTakeFirst();
  if (!row) throw new NoSuchJob();
  return JobSchema.parse(row.document);
}

/**
 * Keeps a changed document as a revision after `base`. Where another window was quicker, the revision is kept all the
 * same but does not become the head, and both are returned for the person to choose.
 */
export async function saveJob(db: Db, id: string, base: string, job: Job): Promise<SaveOutcome> {
  const { mine, moved } = await db.transaction().execute(async (t) => {
    const row = await t
      .insertInto('revisions')
      .values({ job_id: id, parent: base, document: JSON.stringify(job) })
      .returning('id')
      .executeTakeFirstOrThrow();
    return { mine: row.id, moved: await moveHead(t, id, base, row.id) };
  });
  const open = await openJob(db, id);
  return moved ? { saved: true, open } : { saved: false, mine, theirs: open };
}

async function moveHead(db: Db, id: string, from: string, to: string): Promise<boolean> {
  const result = await db
    .updateTable('jobs')
    .set({ head: to })
    .where('id', '=', id)
    .where('head', '=', from)
    .executeTakeFirst();
  return result.numUpdatedRows > 0n;
}

/** Makes a revision that was kept aside the one that counts. */
export async function chooseRevision(db: Db, id: string, base: string, revision: string): Promise<OpenJob> {
  await revisionOf(db, id, revision);
  await moveHead(db, id, base, revision);
  return openJob(db, id);
}

/** Steps back to the revision before, or forward to the latest after; returns what then counts. */
export async function stepJob(db: Db, id: string, base: string, step: 'undo' | 'redo'): Promise<OpenJob> {
  const open = await openJob(db, id);
  if (open.revision !== base) return open;
  const query =
    step === 'undo'
      ? db.selectFrom('revisions').select('parent as to').where('id', '=', base)
      : db.selectFrom('revisions').select('id as to').where('parent', '=', base).orderBy('id', 'desc').limit(1);
  const to = (await query.where('job_id', '=', id).executeTakeFirst())?.to;
  if (to) await moveHead(db, id, base, to);
  return openJob(db, id);
}

export interface JobRow {
  id: string;
  revision: string;
  job: Job;
  changed: Date;
  runs: number;
}

/** All jobs, the one changed last first. */
export async function listJobs(db: Db): Promise<JobRow[]> {
  const rows = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'revisions.id as revision', 'revisions.document', 'revisions.created as changed'])
    .select((eb) =>
      eb
        .selectFrom('runs')
        .whereRef('runs.job_id', '=', 'jobs.id')
        .select((e) => e.fn.countAll<string>().as('n'))
        .as('runs'),
    )
    .orderBy('revisions.created', 'desc')
    .orderBy('jobs.id')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    revision: row.revision,
    job: JobSchema.parse(row.document),
    changed: row.changed,
    runs: Number(row.runs),
  }));
}
