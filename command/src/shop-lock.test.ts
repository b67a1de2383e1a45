import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterEach, beforeEach, expect, test } from 'vitest';
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
  const next = ShopLock.claim(folder);
  expect((await gone)[1]).toBe('SIGTERM');
  expect(foreign.exitCode ?? foreign.signalCode).toBeNull();
  foreign.kill();
  next.release();
});

test('a claim that was written by half is taken over', () => {
  writeFileSync(`${folder}/shop.json`, '{"shop":{"pi');
  ShopLock.claim(folder).release();
});
