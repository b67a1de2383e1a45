import { JOB_ID } from '../job-id.ts';
import { randomUUID } from 'node:crypto';
import { type Kysely, sql } from 'kysely';
import { z } from 'zod';
import { type CutJob, JobSchema } from '@kerbe/core/job/job';
import type { LengthUnit } from '@kerbe/core/quantity/units';
import { sentenceFor } from '@kerbe/core/schema/sentence-for';
import { assetsOf } from './assets.ts';
import { NOT_DRY } from './not-dry.ts';
import { Refused } from './refusal.ts';
import type { Tables } from './tables.ts';

/** A job as a window works on it. */
export interface OpenJob {
  id: string;
  revision: string;
  job: CutJob;
  canUndo: boolean;
  canRedo: boolean;
}

export type SaveOutcome = { saved: true; open: OpenJob } | { saved: false; mine: string; theirs: OpenJob };

export class NoSuchJob extends Refused {
  override name = 'NoSuchJob';
  constructor() {
    super('This job does not exist; go back to the list of jobs.', 404);
  }
}

/** A document as it was kept, with what later versions have added. @throws {Refused} where it cannot be read any more. */
function readDocument(document: unknown): CutJob {
  const parsed = JobSchema.safeParse(document);
  if (parsed.success) return parsed.data;
  throw new Refused(
    `This job cannot be read: it was kept by another version of Kerbe, or is damaged. ${sentenceFor(parsed.error)}`,
    422,
  );
}

type Db = Kysely<Tables>;

// What changes a job reads its answer before it commits: an answer that cannot be read afterwards would say of what is kept
// that it is not.

/** Makes a job from a document. */
export async function createJob(db: Db, job: CutJob, id = randomUUID().slice(0, 8)): Promise<OpenJob> {
  return db.transaction().execute(async (t) => {
    await demandAssets(t, job);
    await t.insertInto('jobs').values({ id, head: null }).execute();
    const { id: revision } = await t
      .insertInto('revisions')
      .values({ job_id: id, parent: null, document: JSON.stringify(job) })
      .returning('id')
      .executeTakeFirstOrThrow();
    await t.updateTable('jobs').set({ head: revision }).where('id', '=', id).execute();
    return openJob(t, id);
  });
}

/** @throws {Refused} where a job refers to artwork that is not kept here; what `before` refers to is not asked for. */
async function demandAssets(db: Db, job: CutJob, before?: CutJob): Promise<void> {
  const known = new Set(before ? assetsOf(before) : []);
  const wanted = assetsOf(job).filter((hash) => !known.has(hash));
  if (wanted.length === 0) return;
  const rows = await db.selectFrom('assets').select('hash').where('hash', 'in', wanted).execute();
  const missing = wanted.find((hash) => !rows.some((row) => row.hash === hash));
  if (!missing) return;
  const name = job.artwork.find((item) => item.kind === 'drawing' && item.asset === missing)!.name;
  throw new Refused(`The drawing of “${name}” is not kept here; import it again.`, 409);
}

export async function openJob(db: Db, id: string): Promise<OpenJob> {
  if (!JOB_ID.test(id)) throw new NoSuchJob();
  const row = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['revisions.id as revision', 'revisions.parent', 'revisions.forward', 'revisions.document'])
    .where('jobs.id', '=', id)
    .executeTakeFirst();
  if (!row) throw new NoSuchJob();
  return {
    id,
    revision: row.revision,
    job: readDocument(row.document),
    canUndo: row.parent !== null,
    canRedo: row.forward !== null,
  };
}

/** One revision of a job. */
export async function revisionOf(db: Db, id: string, revision: string): Promise<CutJob> {
  if (!JOB_ID.test(id)) throw new NoSuchJob();
  const row = await db
    .selectFrom('revisions')
    .select('document')
    .where('job_id', '=', id)
    .where('id', '=', revision)
    .executeTakeFirst();
  if (!row) throw new NoSuchJob();
  return readDocument(row.document);
}

/**
 * Keeps a changed document as a revision after `base`. Where another window was quicker, the revision is kept all the
 * same but does not become the head, and both are returned for the person to choose. A document that is there already,
 * as after an answer that was lost, is not kept twice.
 * @throws {Refused} where the base is none of this job's, or artwork is missing.
 */
export async function saveJob(db: Db, id: string, base: string, job: CutJob): Promise<SaveOutcome> {
  if (!JOB_ID.test(id)) throw new NoSuchJob();
  const document = JSON.stringify(job);
  const same = sql<boolean>`document = ${document}::jsonb`;
  return db.transaction().execute(async (t) => {
    const row = await t.selectFrom('jobs').select('head').where('id', '=', id).forUpdate().executeTakeFirst();
    if (!row?.head) throw new NoSuchJob();
    const ofJob = () => t.selectFrom('revisions').where('job_id', '=', id);
    const before = await ofJob().select('document').where('id', '=', base).executeTakeFirst();
    if (!before) throw new Refused('This page shows a state of the job that is not kept here; load it again.', 409);
    if (await ofJob().select('id').where('id', '=', row.head).where(same).executeTakeFirst())
      return { saved: true, open: await openJob(t, id) };
    await demandAssets(t, job, before.document);
    const kept = await ofJob().select('id').where('parent', '=', base).where(same).executeTakeFirst();
    const { id: mine } =
      (row.head !== base && kept) ||
      (await t
        .insertInto('revisions')
        .values({ job_id: id, parent: base, document })
        .returning('id')
        .executeTakeFirstOrThrow());
    const moved = await moveHead(t, id, base, mine);
    const open = await openJob(t, id);
    return moved ? { saved: true, open } : { saved: false, mine, theirs: open };
  });
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

/** Makes a revision that was kept aside the one that counts; not where another has become that meanwhile. */
export async function chooseRevision(db: Db, id: string, base: string, revision: string): Promise<SaveOutcome> {
  return db.transaction().execute(async (t) => {
    await revisionOf(t, id, revision);
    const moved = await moveHead(t, id, base, revision);
    const open = await openJob(t, id);
    return moved || open.revision === revision ? { saved: true, open } : { saved: false, mine: revision, theirs: open };
  });
}

/**
 * Steps back to the revision before, or forward to the one that the last step back from here came from, whatever others have
 * kept aside meanwhile; returns what then counts.
 */
export async function stepJob(db: Db, id: string, base: string, step: 'undo' | 'redo'): Promise<OpenJob> {
  return db.transaction().execute(async (t) => {
    const open = await openJob(t, id);
    if (open.revision !== base) return open;
    const ofJob = t.selectFrom('revisions').where('job_id', '=', id).where('id', '=', base);
    const row = await ofJob.select(['parent', 'forward']).executeTakeFirst();
    const to = step === 'undo' ? row?.parent : row?.forward;
    if (to && (await moveHead(t, id, base, to)) && step === 'undo')
      await t.updateTable('revisions').set({ forward: base }).where('id', '=', to).execute();
    return openJob(t, id);
  });
}

/** A job as the list shows it. What cannot be read of it is left out. */
export interface JobRow {
  id: string;
  revision: string;
  name: string;
  unit: LengthUnit;
  material: string;
  length: number;
  width: number;
  thickness: number;
  cuts: number;
  changed: string;
  runs: number;
  /** Why it cannot be opened. */
  problem?: string;
}

const SummarySchema = z.object({
  name: z.string(),
  unit: z.enum(['mm', 'in']),
  material: z.string(),
  length: z.number().positive(),
  width: z.number().positive(),
  corners: z.array(z.number()).min(1),
  cuts: z.number().int(),
});

/** All jobs, the one changed last first; of each only what the list shows, however large it is. */
export async function listJobs(db: Db): Promise<JobRow[]> {
  const rows = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'revisions.id as revision', 'revisions.created as changed'])
    .select(
      sql<unknown>`jsonb_build_object(
        'name', document->'name', 'unit', document->'unit', 'material', document#>'{stock,material}',
        'length', document#>'{stock,length}', 'width', document#>'{stock,width}',
        'corners', document#>'{stock,corners}',
        'cuts', case jsonb_typeof(document->'cuts') when 'array' then jsonb_array_length(document->'cuts') end
      )`.as('summary'),
    )
    .select((eb) =>
      eb
        .selectFrom('runs')
        .whereRef('runs.job_id', '=', 'jobs.id')
        .where(NOT_DRY)
        .select((e) => e.fn.countAll<string>().as('n'))
        .as('runs'),
    )
    .orderBy('revisions.created', 'desc')
    .orderBy('jobs.id')
    .execute();
  return rows.map((row) => {
    const { id, revision, changed } = row;
    const own = { id, revision, changed: changed.toISOString(), runs: Number(row.runs) };
    const read = SummarySchema.safeParse(row.summary);
    if (read.success) {
      const { corners, ...summary } = read.data;
      return { ...own, ...summary, thickness: Math.max(...corners) };
    }
    const nothing = { unit: 'mm' as const, material: '', length: 1, width: 1, thickness: 0, cuts: 0 };
    return {
      ...own,
      ...nothing,
      name: id,
      problem: 'This job cannot be read; it was kept by another version of Kerbe.',
    };
  });
}
