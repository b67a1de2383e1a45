import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { expect, test } from 'vitest';
import { Supervised } from './supervised.ts';

const sleeper = () => spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)']);
const until = async (condition: () => boolean) => {
  for (let i = 0; i < 500 && !condition(); i++) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(condition()).toBe(true);
};

test('what ends is started again, with a growing pause, until it is stopped', async () => {
  const said: string[] = [];
  const starts: number[] = [];
  const kept = new Supervised(
    'sleeper',
    async () => {
      starts.push(Date.now());
      return sleeper();
    },
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
  const pauses = starts.slice(1).map((at, k) => at - starts[k]);
  expect(pauses[2]).toBeGreaterThan(pauses[0]);
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
