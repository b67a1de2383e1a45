import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import pg from 'pg';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { type Cluster, startCluster, stopCluster } from '../command/src/cluster.ts';
import { freePort } from '../command/src/free-port.ts';

let folder: string;
let cluster: Cluster | undefined;
beforeEach(() => (folder = mkdtempSync(`${tmpdir()}/kerbe-odd-`)));
afterEach(() => {
  if (cluster?.pid()) cluster.stop();
  cluster = undefined;
  rmSync(folder, { recursive: true, force: true });
});

async function started(): Promise<Cluster> {
  const port = await freePort(0, 'the database');
  return (cluster = await startCluster(folder, () => port));
}
async function asked(statement: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: cluster!.url });
  await client.connect();
  const { rows } = (await client.query(statement)) as { rows: unknown[] };
  await client.end();
  return rows;
}

test('a server that was killed, its number another’s since: it starts, and keeps what it kept', async () => {
  await started();
  await asked('create table kept (x int)');
  await asked('insert into kept values (7)');
  process.kill(cluster!.pid()!, 'SIGKILL');
  await expect.poll(() => cluster!.pid()).toBeUndefined();
  const file = `${folder}/pgdata/postmaster.pid`;
  const [, ...rest] = readFileSync(file, 'utf8').split('\n');
  writeFileSync(file, [process.pid, ...rest].join('\n'));
  // What the killed one had started ends when it notices.
  await expect.poll(async () => started().then(() => 'started', String), { timeout: 60_000 }).toBe('started');
  expect(await asked('select x from kept')).toEqual([{ x: 7 }]);
});

test('a database that was half made is made anew, one of another version is left as it is', async () => {
  mkdirSync(`${folder}/pgdata.new`);
  writeFileSync(`${folder}/pgdata.new/PG_VERSION`, '15');
  await started();
  cluster!.stop();
  const version = `${folder}/pgdata/PG_VERSION`;
  const before = readFileSync(version, 'utf8');
  writeFileSync(version, '9\n');
  await expect(started()).rejects.toThrow(
    /^The shop’s records were made by PostgreSQL 9, and only .* is installed here/,
  );
  writeFileSync(version, before);
  await started();
  expect(await asked('select 1 as one')).toEqual([{ one: 1 }]);
});

test('a server that ends just after its end was given up has been stopped; one that still runs has not', () => {
  chmodSync(folder, 0o755);
  writeFileSync(`${folder}/pg_ctl`, '#!/bin/sh\nexit 1\n', { mode: 0o755 });
  mkdirSync(`${folder}/pgdata`);
  stopCluster(folder, `${folder}/pgdata`);
  const runs = spawn('sleep', ['600'], { cwd: `${folder}/pgdata` });
  try {
    expect(() => stopCluster(folder, `${folder}/pgdata`)).toThrow(/immediate stop failed/);
  } finally {
    runs.kill();
  }
});

test('given up at any moment of its making, nothing of it runs, and the next start has it', async () => {
  const port = await freePort(0, 'the database');
  for (const wait of [0, 300, 900, 1500]) {
    const ending = new AbortController();
    setTimeout(() => ending.abort(new Error('given up')), wait);
    const made = await startCluster(folder, () => port, ending.signal).then((own) => own, String);
    if (typeof made !== 'string') made.stop();
    else expect(made).toBe('Error: given up');
  }
  await started();
  expect(await asked('select 1 as one')).toEqual([{ one: 1 }]);
});
