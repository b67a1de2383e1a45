import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Kysely, PostgresDialect, sql } from 'kysely';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Cluster, startCluster } from '../command/src/cluster.ts';
import { freePort } from '../command/src/free-port.ts';
import type { CutJob as Job } from '../core/src/job/job.ts';
import { readJobFile } from '../core/src/job/job-file.ts';
import { migrate, MIGRATIONS, openDatabase } from '../web/src/lib/server/database.ts';
import { refusalOf } from '../web/src/lib/server/refusal.ts';
import {
  chooseRevision,
  createJob,
  listJobs,
  openJob,
  revisionOf,
  saveJob,
  stepJob,
} from '../web/src/lib/server/jobs.ts';
import type { Tables } from '../web/src/lib/server/tables.ts';
import { PATIENT } from './patient.ts';

let folder: string;
let cluster: Cluster;
let db: ReturnType<typeof openDatabase>;
let job: Job;

beforeAll(async () => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-db-`);
  const port = await freePort(0, 'the database');
  cluster = await startCluster(folder, () => port);
  db = openDatabase(cluster.url, 8, PATIENT);
  job = readJobFile(readFileSync(new URL('../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8')).job;
});
afterAll(async () => {
  await db?.destroy();
  cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const named = (name: string): Job => ({
  ...job,
  name,
  artwork: job.artwork.filter(({ kind }) => kind === 'lettering'),
});

/** A revision as older versions wrote it; it is the one that counts. */
async function madeBefore(
  db: ReturnType<typeof openDatabase>,
  job: string,
  document: Job,
  parent: string | null,
): Promise<string> {
  await sql`insert into jobs (id) values (${job}) on conflict do nothing`.execute(db);
  const { rows } = await sql<{ id: string }>`insert into revisions (job_id, parent, document)
    values (${job}, ${parent}::bigint, ${JSON.stringify(document)}::jsonb) returning id`.execute(db);
  await sql`update jobs set head = ${rows[0].id}::bigint where id = ${job}`.execute(db);
  return rows[0].id;
}

describe('the shop’s database', () => {
  test('an old database is brought up to date and keeps its jobs', async () => {
    expect(await migrate(db, '001-jobs')).toEqual(['001-jobs']);
    const revision = await madeBefore(db, 'old', named('From long ago'), null);
    expect(await migrate(db, '005-made')).toEqual(['002-shop', '003-runs', '004-run-lines', '005-made']);
    // A run of the time when there was one linked bench, and how far its journal had been read.
    await sql`insert into programs (hash, job_id, revision_id, name, text, cuts, minutes)
      values ('h', 'old', ${revision}::bigint, 'p.nc', 'M30', '[]', 1)`.execute(db);
    await sql`insert into runs (id, job_id, program_hash, bench, phase, planned_minutes, settings)
      values ('r', 'old', 'h', 'Dome workshop router', 'done', 1, '{}')`.execute(db);
    await sql`insert into marks (name, value) values ('journal', '17')`.execute(db);
    expect(await migrate(db)).toEqual(['006-benches', '007-stopped', '008-line-unknown', '009-redo']);
    expect(await migrate(db)).toEqual([]);
    const run = await db.selectFrom('runs').select(['bench', 'bench_id']).where('id', '=', 'r').executeTakeFirst();
    expect(run).toEqual({ bench: 'Dome workshop router', bench_id: 'dome-workshop' });
    const marks = await db.selectFrom('marks').selectAll().execute();
    expect(marks).toEqual([{ name: 'journal/dome-workshop', value: '17' }]);
    expect((await openJob(db, 'old')).job.name).toBe('From long ago');
  });

  test.each(Object.keys(MIGRATIONS) as (keyof typeof MIGRATIONS)[])(
    'a database of the time of %s is brought up to date, its job, its program and its broken run in it',
    async (version) => {
      const name = `of_${version.replace('-', '_').replaceAll('-', '')}`;
      await sql`create database ${sql.ref(name)}`.execute(db);
      const old = openDatabase(cluster.url.replace(/[^/]+$/, name), 8, PATIENT);
      await migrate(old, version);
      const revision = await madeBefore(old, 'kept', named('Kept'), null);
      const runs = version >= '003';
      if (runs) {
        await sql`insert into programs (hash, job_id, revision_id, name, text, cuts, minutes)
          values ('h', 'kept', ${revision}::bigint, 'p.nc', 'M30', '[]', 1)`.execute(old);
        const bench = version >= '006' ? { column: sql`, bench_id`, value: sql`, 'dome-workshop'` } : undefined;
        await sql`insert into runs (id, job_id, program_hash, bench, phase, why, planned_minutes, settings ${bench?.column ?? sql``})
          values ('r', 'kept', 'h', 'Dome workshop router', 'lost', 'the link was lost', 1, '{}' ${bench?.value ?? sql``})`.execute(
          old,
        );
      }
      await migrate(old);
      const open = await openJob(old, 'kept');
      expect([open.revision, open.job.name]).toEqual([revision, 'Kept']);
      await saveJob(old, 'kept', revision, named('Kept and changed'));
      expect((await openJob(old, 'kept')).job.name).toBe('Kept and changed');
      const kept = await old.selectFrom('runs').select(['phase', 'why', 'bench_id']).execute();
      expect(kept).toEqual(runs ? [{ phase: 'lost', why: 'the link was lost', bench_id: 'dome-workshop' }] : []);
      await old.destroy();
    },
  );

  test('every change is a revision; undo and redo walk them and survive a new connection', async () => {
    const made = await createJob(db, named('one'), 'walk');
    expect([made.canUndo, made.canRedo]).toEqual([false, false]);
    const two = await saveJob(db, 'walk', made.revision, named('two'));
    expect(two.saved).toBe(true);
    const at = (await openJob(db, 'walk')).revision;
    const other = openDatabase(cluster.url, 8, PATIENT);
    const back = await stepJob(other, 'walk', at, 'undo');
    expect([back.job.name, back.canUndo, back.canRedo]).toEqual(['one', false, true]);
    await other.destroy();
    const again = await stepJob(db, 'walk', back.revision, 'redo');
    expect([again.job.name, again.canRedo]).toEqual(['two', false]);
  });

  test('redo goes where undo came from, whatever another window had kept aside', async () => {
    const { revision: one } = await createJob(db, named('one'), 'aside');
    await saveJob(db, 'aside', one, named('two'));
    const { revision: two } = await openJob(db, 'aside');
    const late = await saveJob(db, 'aside', one, named('kept aside'));
    expect(late.saved).toBe(false);
    const back = await stepJob(db, 'aside', two, 'undo');
    expect([back.job.name, back.canRedo]).toEqual(['one', true]);
    // One that was kept aside behind the state that redo leads to is no step forward from it either.
    expect((await saveJob(db, 'aside', two, named('aside, too'))).saved).toBe(false);
    const again = await stepJob(db, 'aside', back.revision, 'redo');
    expect([again.job.name, again.canRedo]).toEqual(['two', false]);
    // Every version is kept.
    const { rows } = await sql<{
      name: string;
    }>`select document->>'name' as name from revisions where job_id = 'aside' order by id`.execute(db);
    expect(rows.map(({ name }) => name)).toEqual(['one', 'two', 'kept aside', 'aside, too']);
  });

  test('a job from before that was undone can be redone as it could', async () => {
    const old = openDatabase(cluster.url.replace(/[^/]+$/, 'redo_before'), 8, PATIENT);
    await sql`create database redo_before`.execute(db);
    await migrate(old, '008-line-unknown');
    const one = await madeBefore(old, 'undone', named('one'), null);
    await madeBefore(old, 'undone', named('two'), one);
    await sql`update jobs set head = ${one}::bigint where id = 'undone'`.execute(old);
    await migrate(old);
    const open = await openJob(old, 'undone');
    expect(open.canRedo).toBe(true);
    expect((await stepJob(old, 'undone', open.revision, 'redo')).job.name).toBe('two');
    await old.destroy();
  });

  test('two windows on one job: the second save is kept aside and either may be chosen', async () => {
    const { revision } = await createJob(db, named('start'), 'pair');
    expect((await saveJob(db, 'pair', revision, named('left window'))).saved).toBe(true);
    const late = await saveJob(db, 'pair', revision, named('right window'));
    if (late.saved) throw new Error('the second save must not win silently');
    expect(late.theirs.job.name).toBe('left window');
    expect((await openJob(db, 'pair')).job.name).toBe('left window');
    expect((await revisionOf(db, 'pair', late.mine)).name).toBe('right window');
    const chosen = await chooseRevision(db, 'pair', late.theirs.revision, late.mine);
    expect([chosen.saved, chosen.saved && chosen.open.job.name]).toEqual([true, 'right window']);
    const { rows } = await sql<{ n: string }>`select count(*) as n from revisions where job_id = 'pair'`.execute(db);
    expect(Number(rows[0].n)).toBe(3);
  });

  test('“mine counts” over a head that has moved on meanwhile: not taken, and the newer head comes back', async () => {
    const { revision } = await createJob(db, named('start'), 'moved');
    await saveJob(db, 'moved', revision, named('left'));
    const late = await saveJob(db, 'moved', revision, named('right'));
    if (late.saved) throw new Error('the second save must not win silently');
    const third = await saveJob(db, 'moved', late.theirs.revision, named('left again'));
    expect(third.saved).toBe(true);
    const chosen = await chooseRevision(db, 'moved', late.theirs.revision, late.mine);
    if (chosen.saved) throw new Error('a newer head must not be overwritten');
    expect(chosen.theirs.job.name).toBe('left again');
    expect(chosen.mine).toBe(late.mine);
  });

  test('saving again what is there already, as after a lost answer, succeeds and keeps nothing twice', async () => {
    const { revision } = await createJob(db, named('start'), 'again');
    const first = await saveJob(db, 'again', revision, named('changed'));
    const second = await saveJob(db, 'again', revision, named('changed'));
    expect(first.saved && second.saved && first.open.revision === second.open.revision).toBe(true);
    const aside = await saveJob(db, 'again', revision, named('other'));
    const asideAgain = await saveJob(db, 'again', revision, named('other'));
    expect(!aside.saved && !asideAgain.saved && aside.mine === asideAgain.mine).toBe(true);
    const { rows } = await sql<{ n: string }>`select count(*) as n from revisions where job_id = 'again'`.execute(db);
    expect(Number(rows[0].n)).toBe(3);
  });

  test('nothing is asked after a commit: what is kept is never said to be not, for an answer that could not be read', async () => {
    const asked: string[] = [];
    const noted = new Kysely<Tables>({
      dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: cluster.url, max: 1 }) }),
      log: ({ query }) => void asked.push(query.sql),
    });
    const a = await createJob(noted, named('noted'));
    expect(asked.at(-1)).toBe('commit');
    const b = await saveJob(noted, a.id, a.revision, named('noted b'));
    expect(asked.at(-1)).toBe('commit');
    if (!b.saved) throw new Error('not saved');
    const aside = await saveJob(noted, a.id, a.revision, named('noted c'));
    expect(asked.at(-1)).toBe('commit');
    if (aside.saved) throw new Error('not kept aside');
    const chosen = await chooseRevision(noted, a.id, b.open.revision, aside.mine);
    expect(asked.at(-1)).toBe('commit');
    if (!chosen.saved) throw new Error('not chosen');
    const undone = await stepJob(noted, a.id, chosen.open.revision, 'undo');
    expect(undone.job.name).toBe('noted');
    expect(asked.at(-1)).toBe('commit');
    await noted.destroy();
  });

  test('a connection that ends between two questions of a transaction is an error of the next, and of nobody else', async () => {
    const other = openDatabase(cluster.url, 1, PATIENT);
    const left = other.transaction().execute(async (t) => {
      const { rows } = await sql<{ pid: number }>`select pg_backend_pid() as pid`.execute(t);
      await sql`select pg_terminate_backend(${rows[0].pid}, 60000)`.execute(db);
      // So long that the end of it has come here.
      await new Promise((resolve) => setTimeout(resolve, 500));
      await listJobs(t);
    });
    await expect(left).rejects.toSatisfy((error) => refusalOf(error)?.status === 503);
    expect(await listJobs(other)).toEqual(await listJobs(db));
    await other.destroy();
  });

  test('a step back to what cannot be read any more is not taken', async () => {
    const damaged = { ...named('damaged'), stock: {} } as unknown as Job;
    const before = await madeBefore(db, 'over-damaged', damaged, null);
    const head = await madeBefore(db, 'over-damaged', named('over damaged'), before);
    await expect(stepJob(db, 'over-damaged', head, 'undo')).rejects.toThrow(/^This job cannot be read/);
    expect(await openJob(db, 'over-damaged')).toMatchObject({ revision: head, canUndo: true });
  });

  test('unknown jobs, bases and artwork are refused with a sentence and a status, not by the database', async () => {
    const { revision } = await createJob(db, named('start'), 'unknown');
    const status = (work: Promise<unknown>) =>
      work.then(
        () => 200,
        (error: unknown) => refusalOf(error)?.status,
      );
    for (const id of ['nobody', 'a\0b', '../x', 'x'.repeat(500), '', '\ud800'])
      expect(await status(openJob(db, id))).toBe(404);
    expect(await status(saveJob(db, 'nobody', revision, named('x')))).toBe(404);
    expect(await status(saveJob(db, 'unknown', '999999', named('x')))).toBe(409);
    expect(await status(saveJob(db, 'unknown', revision, { ...named('x'), artwork: job.artwork }))).toBe(409);
    expect(await status(chooseRevision(db, 'unknown', revision, '999999'))).toBe(404);
    expect((await openJob(db, 'unknown')).job.name).toBe('start');
  });

  test('one job that cannot be read does not take the list down', async () => {
    await createJob(db, named('sound'), 'sound');
    await createJob(db, named('broken'), 'broken');
    await sql`update revisions set document = '{"format":"kerbe-job","stock":7}' where job_id = 'broken'`.execute(db);
    const list = await listJobs(db);
    expect(list.find(({ id }) => id === 'broken')?.problem).toMatch(/cannot be read/);
    expect(list.find(({ id }) => id === 'sound')).toMatchObject({ name: 'sound', cuts: job.cuts.length });
    await expect(openJob(db, 'broken')).rejects.toThrow(/cannot be read: .*\.$/);
  });
});

describe('kerbe make', () => {
  const root = fileURLToPath(new URL('..', import.meta.url));
  const kerbe = (...args: string[]) =>
    execFileSync(process.execPath, ['--import', 'tsx', 'command/src/main.ts', ...args], {
      cwd: root,
      encoding: 'utf8',
      stdio: 'pipe',
    });

  test('writes the demo board’s program and report without a database', () => {
    kerbe('make', 'demo/jobs/entrance-board.kerbe.json', '--out', `${folder}-out`);
    const report = JSON.parse(readFileSync(`${folder}-out/report.json`, 'utf8'));
    expect(report.cuts.map((cut: { depth_mm: number }) => cut.depth_mm)).toEqual([6.5, 28.4]);
    expect(report.cuts[1].seconds).toBeGreaterThan(200);
    expect(readFileSync(`${folder}-out/program.nc`, 'utf8')).toMatch(/M30\n$/);
    rmSync(`${folder}-out`, { recursive: true });
  });
  test.each([
    [['make'], /Use: \.\/kerbe make/],
    [['make', 'nowhere.json', '--out', '/tmp/x'], /There is no file nowhere\.json/],
    [['make', 'package.json', '--out', '/tmp/x'], /not a valid Kerbe job/],
    [['polish'], /There is no command “polish”/],
  ])('bad use %j: exit code 2 and one sentence', (args, sentence) => {
    try {
      kerbe(...args);
      throw new Error('it did not fail');
    } catch (error) {
      expect((error as { status: number }).status).toBe(2);
      expect((error as { stderr: string }).stderr).toMatch(sentence);
    }
  });
});
