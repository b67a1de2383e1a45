import { spawnSync } from 'node:child_process';
import { chownSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { sql } from 'kysely';
import { afterAll, describe, expect, test } from 'vitest';
import { type Cluster, startCluster } from '../command/src/cluster.ts';
import { freePort } from '../command/src/free-port.ts';
import { migrate, openDatabase } from '../web/src/lib/server/database.ts';
import { PATIENT } from './patient.ts';

/** Who may do what in the shop's database: nobody without a password, and the server no more than it needs. */

const folders: string[] = [];
const clusters: Cluster[] = [];
afterAll(() => {
  for (const cluster of clusters) if (cluster.pid()) cluster.stop();
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});
const root = process.getuid?.() === 0;
const base = '/usr/lib/postgresql';
const bin = `${base}/${readdirSync(base).sort((a, b) => Number(b) - Number(a))[0]}/bin`;

function folderForCluster(): string {
  const folder = mkdtempSync(`${tmpdir()}/kerbe-access-`);
  folders.push(folder);
  return folder;
}

async function started(folder: string): Promise<Cluster> {
  const port = await freePort(0, 'the database');
  const cluster = await startCluster(folder, () => port);
  clusters.push(cluster);
  return cluster;
}

/** What a statement comes to as a role: nothing, or why it was refused. */
async function as(url: string, statement: string): Promise<string> {
  const db = openDatabase(url, 1, PATIENT);
  try {
    await sql.raw(statement).execute(db);
    return '';
  } catch (error) {
    return String((error as Error).message);
  } finally {
    await db.destroy();
  }
}
const without = (url: string, role: string) => url.replace(/\/\/[^@]*@/, `//${role}@`);

async function letsNobodyIn(cluster: Cluster): Promise<void> {
  for (const role of ['kerbe', 'kerbe_owner', 'kerbe_server', 'postgres', 'root']) {
    expect(await as(without(cluster.url, role), 'select 1'), role).not.toBe('');
    expect(await as(without(cluster.url, `${role}:guess`), 'select 1'), role).toMatch(/password/);
  }
}

async function serverIsNoMore(cluster: Cluster): Promise<void> {
  const server = (statement: string) => as(cluster.serverUrl, statement);
  expect(await server(`insert into marks (name, value) values ('tried', '1')`)).toBe('');
  expect(await server(`update marks set value = '2' where name = 'tried'`)).toBe('');
  expect(await server('select * from jobs, revisions, runs')).toBe('');
  expect(await server(`delete from marks where name = 'tried'`)).toBe('');
  for (const statement of [
    'create table mine (x int)',
    'drop table marks',
    'alter table marks add column more text',
    'create role another',
    'alter role kerbe_server superuser',
    'create database another',
    'create extension pg_trgm',
    `copy marks from program 'true'`,
    `copy marks to '/tmp/kerbe-marks'`,
    `select pg_read_file('/etc/passwd')`,
    'set role kerbe',
    'set role kerbe_owner',
  ])
    expect(await server(statement), statement).toMatch(/permission denied|must be|not.*owner/);
  expect(await as(cluster.ownerUrl, `copy marks from program 'true'`)).toMatch(/permission denied|must be/);
  expect(await as(cluster.ownerUrl, 'create role another')).toMatch(/permission denied/);
}

describe('a new cluster', () => {
  test('lets nobody in without a password, and its server may read and write what is kept and nothing else', async () => {
    const folder = folderForCluster();
    const cluster = await started(folder);
    const owner = openDatabase(cluster.ownerUrl, 1, PATIENT);
    await migrate(owner);
    await owner.destroy();
    await letsNobodyIn(cluster);
    await serverIsNoMore(cluster);
    expect(statSync(`${folder}/passwords.json`).mode & 0o77).toBe(0);
    // The same passwords after a second start.
    cluster.stop();
    const again = await started(folder);
    expect(await as(again.serverUrl, 'select 1 from jobs')).toBe('');
  });

  test.runIf(root)('another account of this computer is refused, and cannot read the passwords', async () => {
    const folder = folderForCluster();
    const cluster = await started(folder);
    const { port } = new URL(cluster.url);
    const nobody = (...command: string[]) =>
      spawnSync('runuser', ['-u', 'nobody', '--', ...command], { cwd: '/', encoding: 'utf8' });
    const tried = nobody(
      `${bin}/psql`,
      '-w',
      '-h',
      '127.0.0.1',
      '-p',
      port,
      '-U',
      'kerbe',
      '-c',
      'select 1',
      'postgres',
    );
    expect([tried.status, tried.stderr]).toEqual([2, expect.stringMatching(/password/)]);
    expect(nobody('cat', `${folder}/passwords.json`).status).not.toBe(0);
    expect(
      nobody(`${bin}/psql`, '-w', '-h', folder, '-p', port, '-U', 'kerbe', '-c', 'select 1', 'postgres').status,
    ).not.toBe(0);
  });
});

describe('a cluster of before, which let everybody in as who may do everything', () => {
  /** As older versions made and started it. */
  function old(folder: string, port: number): void {
    if (root) {
      const [uid, gid] = ['-u', '-g'].map((flag) =>
        Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout),
      );
      chownSync(folder, uid, gid);
    }
    const run = (file: string, ...args: string[]) => {
      const [command, all] = root ? ['runuser', ['-u', 'postgres', '--', file, ...args]] : [file, args];
      const done = spawnSync(command, all, { cwd: '/', encoding: 'utf8' });
      expect(`${done.status} ${done.status === 0 ? '' : done.stderr}`).toBe('0 ');
    };
    run(
      `${bin}/initdb`,
      '-D',
      `${folder}/pgdata`,
      '-U',
      'kerbe',
      '--auth=trust',
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '--no-sync',
    );
    run(
      `${bin}/pg_ctl`,
      '-D',
      `${folder}/pgdata`,
      '-w',
      '-t',
      '30',
      '-l',
      `${folder}/postgres.log`,
      '-o',
      `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='${folder}'`,
      'start',
    );
  }

  test.each(['running', 'stopped'])('is set right in place, %s, and keeps all', async (state) => {
    const folder = folderForCluster();
    mkdirSync(folder, { recursive: true });
    const port = await freePort(0, 'the database');
    old(folder, port);
    const open = `postgres://kerbe@127.0.0.1:${port}/postgres`;
    const before = openDatabase(open, 1, PATIENT);
    await migrate(before, '008-line-unknown');
    await sql`insert into jobs (id) values ('kept')`.execute(before);
    await sql`insert into revisions (job_id, parent, document) values ('kept', null, '{"name": "Kept"}')`.execute(
      before,
    );
    await before.destroy();
    if (state === 'stopped') {
      const args = ['-D', `${folder}/pgdata`, '-m', 'fast', 'stop'];
      spawnSync(root ? 'runuser' : `${bin}/pg_ctl`, root ? ['-u', 'postgres', '--', `${bin}/pg_ctl`, ...args] : args, {
        cwd: '/',
      });
    }
    const cluster = await started(folder);
    await letsNobodyIn(cluster);
    const owner = openDatabase(cluster.ownerUrl, 1, PATIENT);
    expect(await migrate(owner)).toEqual(['009-redo']);
    const { rows } = await sql<{ name: string }>`select document->>'name' as name from revisions`.execute(owner);
    expect(rows).toEqual([{ name: 'Kept' }]);
    await owner.destroy();
    await serverIsNoMore(cluster);
  });
});
