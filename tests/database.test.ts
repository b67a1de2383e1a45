import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Cluster, startCluster } from '../command/src/cluster.ts';
import { jobSchemaText } from '../command/src/job-schema.ts';
import { freePort } from '../command/src/free-port.ts';
import { type Job } from '../core/src/job/job.ts';
import { readJobFile } from '../core/src/job/job-file.ts';
import { migrate, openDatabase } from '../web/src/lib/server/database.ts';
import { chooseRevision, createJob, openJob, revisionOf, saveJob, stepJob } from '../web/src/lib/server/jobs.ts';

let folder: string;
let cluster: Cluster;
let db: ReturnType<typeof openDatabase>;
let job: Job;

beforeAll(async () => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-db-`);
  const port = await freePort(0, 'the database');
  cluster = startCluster(folder, () => port);
  db = openDatabase(cluster.url);
  job = readJobFile(readFileSync(new URL('../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8')).job;
});
afterAll(async () => {
  await db?.destroy();
  cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const named = (name: string): Job => ({ ...job, name });

describe('the shop’s database', () => {
  test('an old database is brought up to date and keeps its jobs', async () => {
    expect(await migrate(db, '001-jobs')).toEqual(['001-jobs']);
    await createJob(db, named('From long ago'), 'old');
    expect(await migrate(db)).toEqual(['002-shop', '003-runs', '004-run-lines']);
    expect(await migrate(db)).toEqual([]);
    expect((await openJob(db, 'old')).job.name).toBe('From long ago');
  });

  test('every change is a revision; undo and redo walk them and survive a new connection', async () => {
    const made = await createJob(db, named('one'), 'walk');
    expect([made.canUndo, made.canRedo]).toEqual([false, false]);
    const two = await saveJob(db, 'walk', made.revision, named('two'));
    expect(two.saved).toBe(true);
    const at = (await openJob(db, 'walk')).revision;
    const other = openDatabase(cluster.url);
    const back = await stepJob(other, 'walk', at, 'undo');
    expect([back.job.name, back.canUndo, back.canRedo]).toEqual(['one', false, true]);
    await other.destroy();
    const again = await stepJob(db, 'walk', back.revision, 'redo');
    expect([again.job.name, again.canRedo]).toEqual(['two', false]);
  });

  test('two windows on one job: the second save is kept aside and either may be chosen', async () => {
    const { revision } = await createJob(db, named('start'), 'pair');
    expect((await saveJob(db, 'pair', revision, named('left window'))).saved).toBe(true);
    const late = await saveJob(db, 'pair', revision, named('right window'));
    if (late.saved) throw new Error('the second save must not win silently');
    expect(late.theirs.job.name).toBe('left window');
    expect((await openJob(db, 'pair')).job.name).toBe('left window');
    expect((await revisionOf(db, 'pair', late.mine)).name).toBe('right window');
    expect((await chooseRevision(db, 'pair', late.theirs.revision, late.mine)).job.name).toBe('right window');
    const { rows } = await sql<{ n: string }>`select count(*) as n from revisions where job_id = 'pair'`.execute(db);
    expect(Number(rows[0].n)).toBe(3);
  });
});

test('docs/job.schema.json is the schema the code checks job files with', () => {
  expect(readFileSync(new URL('../docs/job.schema.json', import.meta.url), 'utf8')).toBe(jobSchemaText());
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
