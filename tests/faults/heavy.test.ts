import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeEach, expect, test } from 'vitest';
import { HeavyDesk } from '../../web/src/lib/server/heavy/desk.ts';
import { pause } from './at-the-bench.ts';

const folder = mkdtempSync(`${tmpdir()}/kerbe-heavy-`);
process.env.KERBE_TOLD = `${folder}/told`;
process.env.KERBE_LOG = 'silent';
const worker = new URL('./work-that-misbehaves.ts', import.meta.url).pathname;
process.execArgv.push('--import', 'tsx');
/** Nothing here goes by how quick this machine is: only one desk has a limit of time, and its work never ends by itself. */
const desk = new HeavyDesk(worker, { memory: 600e6, time: 900_000 });
const hurried = new HeavyDesk(worker, { memory: 600e6, time: 1000 });
beforeEach(() => writeFileSync(process.env.KERBE_TOLD!, ''));
afterAll(async () => {
  await desk.close();
  await hurried.close();
  rmSync(folder, { recursive: true, force: true });
});

const told = () => readFileSync(process.env.KERBE_TOLD!, 'utf8').trim().split('\n').filter(Boolean);
const isThere = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};
const never = new AbortController().signal;
async function begun(what: string): Promise<number> {
  for (;;) {
    const line = told().find((l) => l.startsWith(what));
    if (line) return Number(line.split(' ')[1]);
    await pause(50);
  }
}

test('work is ended when the last who asked for it has gone, and not before', async () => {
  const [one, two] = [new AbortController(), new AbortController()];
  const first = desk.do('programs', ['a', '1', 'x'], 'ann', one.signal).catch(String);
  const second = desk.do('programs', ['a', '1', 'x'], 'bea', two.signal).catch(String);
  const pid = await begun('programs');
  one.abort(new Error('ann has gone'));
  expect(await first).toContain('ann has gone');
  await pause(300);
  expect(isThere(pid)).toBe(true);
  two.abort(new Error('bea has gone'));
  expect(await second).toContain('bea has gone');
  while (isThere(pid)) await pause(50);
  expect(told()).toHaveLength(1);
});

test('a drawing waits for no programs, whoever has as many of these under way as there are places', async () => {
  const leave = Array.from({ length: 8 }, () => new AbortController());
  const long = leave.map(({ signal }, k) =>
    desk.do('programs', [`p${k}`, '1', 'x'], k % 2 ? 'ann' : 'bea', signal).catch(String),
  );
  await begun('programs');
  // They never end by themselves.
  expect(await desk.do('drawing', ['/z', 'y'], 'ann', never)).toBe('/z');
  for (const one of leave) one.abort(new Error('gone'));
  await Promise.all(long);
});

test('what holds too much memory is ended with a sentence, and the next is well', async () => {
  await expect(desk.do('thumbnail', ['a', '1'], 'ann', never)).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(/more memory than one computation may have \(0\.6 GB\); simplify/),
  });
  expect(await desk.do('drawing', ['/x', 'y'], 'ann', never)).toBe('/x');
});

test('work whose process is ended from elsewhere is begun again, once', async () => {
  const found = desk.do('programs', ['k', '1', 'x'], 'ann', never).catch((error: unknown) => error);
  const pids = () => told().map((line) => Number(line.split(' ')[1]));
  await begun('programs');
  process.kill(pids()[0], 'SIGKILL');
  while (pids().length < 2) await pause(50);
  expect(isThere(pids()[1])).toBe(true);
  process.kill(pids()[1], 'SIGKILL');
  expect(await found).toMatchObject({ status: 500, message: expect.stringMatching(/ended before it was done/) });
  expect(pids()).toHaveLength(2);
  expect(await desk.do('drawing', ['/w', 'y'], 'ann', never)).toBe('/w');
});

test('what takes too long is ended with a sentence', async () => {
  await expect(hurried.do('programs', ['b', '1', 'x'], 'ann', never)).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(/longer than one computation may/),
  });
});

test('a process that ends by itself is said, and the next is well', async () => {
  await expect(desk.do('jobFile', ['/x'], 'ann', never)).rejects.toMatchObject({ status: 500 });
  expect(await desk.do('drawing', ['/z', 'y'], 'ann', never)).toBe('/z');
});

test('a fault of ours is said as ours, without its words', async () => {
  await expect(desk.do('save', ['/x', 'a'], 'ann', never)).rejects.toMatchObject({
    status: 500,
    message: expect.stringMatching(/^Something is wrong in Kerbe itself/),
  });
});

test('what two ask for is done once', async () => {
  const both = await Promise.all([
    desk.do('drawing', ['/same', 'y'], 'ann', never),
    desk.do('drawing', ['/same', 'y'], 'bea', never),
  ]);
  expect(both).toEqual(['/same', '/same']);
  expect(told()).toHaveLength(1);
});

test('what differs in anything is done by itself', async () => {
  const asked = [
    ['/one', 'y'],
    ['/one', 'z'],
    ['/two', 'y'],
  ] as const;
  const found = await Promise.all(asked.map(([file, name]) => desk.do('drawing', [file, name], 'ann', never)));
  expect(found).toEqual(['/one', '/one', '/two']);
  expect(told()).toHaveLength(3);
});
