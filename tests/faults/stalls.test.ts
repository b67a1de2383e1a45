import { copyFileSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { execFileSync, spawnSync } from 'node:child_process';
import { sql } from 'kysely';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { openDatabase } from '../../web/src/lib/server/database.ts';
import { Answered, AtTheBench } from './at-the-bench.ts';
import { heaviest } from '../../command/src/bench-load.ts';
import { AlreadyRunning } from '../../command/src/shop-lock.ts';
import { startShop } from '../../command/src/shop.ts';

const JOB = 'entrance-board';
let bench: AtTheBench;
beforeAll(async () => {
  bench = await AtTheBench.open(5);
});
afterAll(() => bench?.close());

/** Every process of a database's server, the server itself first. */
const serverProcesses = (): number[] => {
  const main = bench.shop.database.pid()!;
  const children = execFileSync('ps', ['-o', 'pid=', '--ppid', String(main)], { encoding: 'utf8' });
  return [main, ...children.trim().split(/\s+/).map(Number)];
};

const status = (work: Promise<unknown>) =>
  work.then(
    () => 200,
    (error: unknown) => (error instanceof Answered ? error.status : -1),
  );

test('a second start on the same data says so, and where the first is', async () => {
  const second = startShop({ data: bench.data, web: 0, database: 0, rate: 60, seed: 1 });
  await expect(second).rejects.toThrow(AlreadyRunning);
  await expect(second).rejects.toThrow(`Kerbe is running already for these data: ${bench.shop.address}`);
  expect(await status(bench.ask(`/api/jobs/${JOB}`))).toBe(200);
});

test('a database that hangs: requests are 503 within seconds, the bench is commanded all the same, and a change is kept once it goes on', async () => {
  const { revision, job } = await bench.ask<{ revision: string; job: { name: string } }>(`/api/jobs/${JOB}`);
  await bench.connectAndHome(JOB);
  const stopped = serverProcesses();
  for (const pid of stopped) process.kill(pid, 'SIGSTOP');
  try {
    const save = { base: revision, job: { ...job, name: 'Kept all the same' } };
    const [read, saved] = await Promise.all([
      status(bench.ask(`/api/jobs/${JOB}`)),
      status(bench.ask(`/api/jobs/${JOB}`, save, 'PUT')),
    ]);
    expect([read, saved]).toEqual([503, 503]);
    expect((await bench.tell({ command: 'step', axis: 'x', by: 5, feed: 2000 })).bench).toBe('jogging');
  } finally {
    for (const pid of stopped) process.kill(pid, 'SIGCONT');
  }
  await bench.eventually(
    () =>
      bench.ask<{ job: { name: string } }>(
        `/api/jobs/${JOB}`,
        { base: revision, job: { ...job, name: 'Kept all the same' } },
        'PUT',
      ),
    () => true,
  );
  expect((await bench.ask<{ job: { name: string } }>(`/api/jobs/${JOB}`)).job.name).toBe('Kept all the same');
  await bench.ready();
});

test('a web server that is started while the database hangs: Hold and Stop are obeyed', async () => {
  await bench.tell({ command: 'step', axis: 'x', by: 90, feed: 60 });
  const stopped = serverProcesses();
  for (const pid of stopped) process.kill(pid, 'SIGSTOP');
  try {
    await bench.kill('web');
    const held = await bench.eventually(
      () => bench.tell({ command: 'hold' }),
      () => true,
      15,
    );
    expect(held.bench).toBe('held:ready');
    await bench.tell({ command: 'stop' });
    expect(await status(bench.ask(`/api/jobs/${JOB}`))).toBe(503);
  } finally {
    for (const pid of stopped) process.kill(pid, 'SIGCONT');
  }
  await bench.ready();
  await bench.eventually(
    () => bench.ask(`/api/jobs/${JOB}`),
    () => true,
  );
});

test('an entry of a run that never reached the runner is closed, and says that nothing moved', async () => {
  const db = openDatabase(bench.shop.database.url, 1);
  const hash = 'f'.repeat(64);
  const id = '00000000-0000-4000-8000-000000000001';
  try {
    const { revision } = await bench.ask<{ revision: string }>('/api/jobs/comet-marker');
    await sql`insert into programs (hash, job_id, revision_id, name, text, cuts, minutes)
      values (${hash}, 'comet-marker', ${revision}, 'x.nc', 'M2', '[]', 1)`.execute(db);
    await sql`insert into runs (id, job_id, program_hash, bench, bench_id, phase, planned_minutes, settings, started)
      values (${id}, 'comet-marker', ${hash}, 'b', 'dome-workshop', 'running', 1, '{"cuts":[]}', now() - interval '20 seconds')`.execute(
      db,
    );
    const [closed] = await bench.eventually(
      () => bench.runs('comet-marker'),
      ([run]) => run.phase !== 'running',
    );
    expect(closed).toMatchObject({ id, phase: 'failed', line: 0, why: expect.stringContaining('nothing moved') });
    // Not at once: a start may be on its way.
    expect(Date.parse(closed.ended!) - Date.parse(closed.started)).toBeGreaterThanOrEqual(30_000);
  } finally {
    await db.destroy();
  }
});

test('two operators: one commands, the other may hold and stop, and a killed server changes nothing of that', async () => {
  const other = bench.other('other-page');
  await bench.tell({ command: 'step', axis: 'x', by: 5, feed: 2000 });
  await bench.ready();
  expect(await status(other.tell({ command: 'step', axis: 'x', by: -5, feed: 2000 }))).toBe(409);
  await bench.tell({ command: 'step', axis: 'x', by: 60, feed: 100 });
  expect((await other.tell({ command: 'hold' })).bench).toBe('held:ready');
  await other.tell({ command: 'stop' });
  await bench.ready();
  await bench.kill('web');
  await bench.eventually(
    () => bench.state(),
    (s) => s.bench === 'ready',
  );
});

test('a stalled runner: the machine holds by itself, and nothing moves until someone asks', async () => {
  const from = (await bench.look()).tip.x;
  const by = from > 300 ? -100 : 100;
  await bench.tell({ command: 'step', axis: 'x', by, feed: 20 });
  const pid = bench.pidOf('runner')!;
  process.kill(pid, 'SIGSTOP');
  try {
    await bench.eventually(
      () => bench.stands(),
      (stands) => stands,
    );
  } finally {
    process.kill(pid, 'SIGCONT');
  }
  await bench.when((s) => s.bench !== 'jogging');
  expect(await bench.stands()).toBe(true);
  expect(Math.abs((await bench.look()).tip.x - from)).toBeLessThan(99);
  await bench.connectAndHome(JOB);
});

/** Processes of heavy work of this shop, and the processor time each has had, in ticks. */
function heavyWork(): Map<number, number> {
  const web = bench.pidOf('web')!;
  // It ends with 1 where there is none.
  const found = spawnSync('ps', ['-o', 'pid=', '--ppid', String(web)], { encoding: 'utf8' }).stdout.trim();
  return new Map(
    found.split(/\s+/).flatMap((pid): [number, number][] => {
      try {
        const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(' ');
        return [[Number(pid), Number(fields[13])]];
      } catch {
        return [];
      }
    }),
  );
}

test('who goes away ends what was computed for him, and only that', async () => {
  const made = await fetch(new URL('/api/jobs/import', bench.shop.address), {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', 'x-kerbe-page': 'gone' },
    body: JSON.stringify(heaviest()[0]),
  });
  const { id } = (await made.json()) as { id: string };
  const { revision } = await bench.ask<{ revision: string }>(`/api/jobs/${id}`);
  const before = heavyWork();
  const leave = new AbortController();
  const asked = fetch(new URL(`/api/jobs/${id}/programs`, bench.shop.address), {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-kerbe-page': 'gone' },
    body: JSON.stringify({ revision }),
    signal: leave.signal,
  }).catch(() => undefined);
  // At work for half a second, of which it has many more.
  const busy = await bench.eventually(
    async () => [...heavyWork()].filter(([pid, ticks]) => ticks - (before.get(pid) ?? 0) > 50).map(([pid]) => pid),
    (at) => at.length > 0,
  );
  expect(busy).toHaveLength(1);
  leave.abort();
  await asked;
  await bench.eventually(
    async () => heavyWork().has(busy[0]),
    (there) => !there,
  );
});

test('a full disk: a run is not begun, one that is on goes on and its end is written when there is room again', async () => {
  const { journal } = bench.shop;
  const full = () => {
    copyFileSync(journal, `${journal}.kept`);
    rmSync(journal);
    symlinkSync('/dev/full', journal);
  };
  const room = () => {
    rmSync(journal);
    copyFileSync(`${journal}.kept`, journal);
  };
  const revision = await bench.setUp(JOB, 'v60');
  const id = await bench.startRun(JOB, revision);
  await bench.when((s) => (s.run?.line ?? 0) > 30);
  full();
  const { run } = await bench.when((s) => s.unwritten === true);
  await bench.when((s) => s.run!.line > run!.line);
  await bench.tell({ command: 'stop' });
  await bench.ready();
  for (const step of ['eyes', 'hand']) await bench.tell({ command: 'tick', step, on: true, job: JOB });
  const begun = await bench.startRun(JOB, revision).catch((error: unknown) => error);
  expect(begun).toMatchObject({ status: 409, problem: expect.stringContaining('could not be written down') });
  expect((await bench.runs(JOB)).map((logged) => [logged.id, logged.phase])).toEqual([[id, 'running']]);
  room();
  await bench.when((s) => !s.unwritten);
  await bench.eventually(
    () => bench.runs(JOB),
    ([logged]) => logged.id === id && logged.phase === 'stopped' && logged.line! > 30,
  );
  expect(readFileSync(journal, 'utf8')).toContain(id);
});
