import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AlreadyRunning, ShopLock } from './shop-lock.ts';

let folder: string;
beforeEach(() => (folder = mkdtempSync(`${tmpdir()}/kerbe-lock-`)));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** The claim as it would be if the process that made it had been killed, and its number given to another since. */
const orphan = () => {
  const lock = JSON.parse(readFileSync(`${folder}/shop.json`, 'utf8')) as { shop: { began: string } };
  writeFileSync(`${folder}/shop.json`, JSON.stringify({ ...lock, shop: { ...lock.shop, began: '1' } }));
};

test('a second claim is refused with the address of the first, until that is released', () => {
  const first = ShopLock.claim(folder);
  expect(() => ShopLock.claim(folder)).toThrow(/being started already/);
  first.tell('http://127.0.0.1:4180/', []);
  expect(() => ShopLock.claim(folder)).toThrow(AlreadyRunning);
  expect(() => ShopLock.claim(folder)).toThrow('http://127.0.0.1:4180/');
  first.release();
  ShopLock.claim(folder).release();
});

test('what a killed start has left running is ended by the next, and nothing else is', async () => {
  const sleeper = () => spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)']);
  const [left, foreign] = [sleeper(), sleeper()];
  const gone = once(left, 'exit');
  ShopLock.claim(folder).tell('http://127.0.0.1:1/', [left.pid, undefined, foreign.pid]);
  orphan();
  // The number of the second has been given to another process since: it began at another time.
  const lock = JSON.parse(readFileSync(`${folder}/shop.json`, 'utf8')) as {
    processes: { pid: number; began: string }[];
  };
  lock.processes.find(({ pid }) => pid === foreign.pid)!.began = '1';
  writeFileSync(`${folder}/shop.json`, JSON.stringify(lock));
  const kill = vi.spyOn(process, 'kill');
  const next = ShopLock.claim(folder);
  // That the second still runs a moment later would say nothing: it may not have ended yet.
  expect(kill.mock.calls).toEqual([[left.pid, 'SIGTERM']]);
  kill.mockRestore();
  expect((await gone)[1]).toBe('SIGTERM');
  foreign.kill();
  next.release();
});

test('a claim that was written by half is taken over', () => {
  writeFileSync(`${folder}/shop.json`, '{"shop":{"pi');
  ShopLock.claim(folder).release();
});

test('of many that start at one instant on a claim left behind, one has it', async () => {
  const bundled = `${folder}/shop-lock.mjs`;
  await build({
    entryPoints: [fileURLToPath(new URL('./shop-lock.ts', import.meta.url))],
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile: bundled,
  });
  const script = `
    import { ShopLock } from ${JSON.stringify(bundled)};
    process.stdin.once('data', () => {
      try { ShopLock.claim(${JSON.stringify(folder)}); console.log('claimed'); } catch (error) { console.log(error.name); }
      process.stdin.once('data', () => process.exit());
    });
    console.log('ready');`;
  for (let round = 0; round < 2; round++) {
    writeFileSync(`${folder}/shop.json`, JSON.stringify({ shop: { pid: 1, began: 'never' }, processes: [] }));
    const args = ['--input-type=module', '-e', script];
    const starts = Array.from({ length: 6 }, () => spawn(process.execPath, args));
    const lines = starts.map((start) => createInterface({ input: start.stdout })[Symbol.asyncIterator]());
    const next = () => Promise.all(lines.map(async (line) => (await line.next()).value as string));
    expect(await next()).toEqual(starts.map(() => 'ready'));
    for (const start of starts) start.stdin.write('go\n');
    const said = await next();
    for (const start of starts) start.stdin.write('end\n');
    await Promise.all(starts.map((start) => once(start, 'exit')));
    expect(said.filter((word) => word === 'claimed')).toHaveLength(1);
    expect(said.filter((word) => word === 'AlreadyRunning')).toHaveLength(5);
    rmSync(`${folder}/shop.json`);
  }
});
