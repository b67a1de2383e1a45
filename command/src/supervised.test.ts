import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { expect, test, vi } from 'vitest';
import { Supervised } from './supervised.ts';

const sleeper = () => spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)']);
const until = async (condition: () => boolean) => {
  while (!condition()) await new Promise((resolve) => setTimeout(resolve, 20));
};

test('what ends is started again, with a growing pause, until it is stopped', async () => {
  const said: string[] = [];
  const timers = vi.spyOn(globalThis, 'setTimeout');
  const kept = new Supervised(
    'sleeper',
    async () => sleeper(),
    (sentence) => said.push(sentence),
  );
  await kept.start();
  for (let k = 0; k < 3; k++) {
    const before = kept.pid!;
    process.kill(before, 'SIGKILL');
    await until(() => kept.pid !== undefined && kept.pid !== before);
  }
  expect(kept.restarts).toBe(3);
  expect(said[0]).toBe('The sleeper has ended (SIGKILL); it is started again.');
  expect(timers.mock.calls.map(([, pause]) => pause).filter((pause) => pause! >= 200)).toEqual([200, 400, 800]);
  timers.mockRestore();
  const last = kept.process!;
  kept.stop();
  await once(last, 'exit');
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect(kept.pid).toBeUndefined();
});

test('what cannot be started is tried again', async () => {
  let tries = 0;
  const kept = new Supervised(
    'sleeper',
    async () => {
      if (++tries === 2) throw new Error('no room');
      return sleeper();
    },
    () => {},
  );
  await kept.start();
  process.kill(kept.pid!, 'SIGKILL');
  await until(() => tries === 3 && kept.pid !== undefined);
  kept.stop();
});
