import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, expect, test } from 'vitest';

/** Moments of a start, s, at which it is told to end; more of them in the long run. */
const MOMENTS = (process.env.KERBE_MOMENTS ?? '0.4,2,5').split(',').map(Number);
/** So long it may take to end, ms: patience, and no measure of speed, but for the long run. */
const WITHIN = Number(process.env.KERBE_ENDS_WITHIN ?? 60_000);

let folder: string;
beforeAll(() => (folder = mkdtempSync(`${tmpdir()}/kerbe-start-`)));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Processes that were started with the folder, whoever started them. */
const left = () =>
  readdirSync('/proc').filter((pid) => {
    try {
      return /^\d+$/.test(pid) && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`KERBE_DATA=${folder}\0`);
    } catch {
      return false;
    }
  });

function starts(): { child: ChildProcess; said: () => string } {
  const main = new URL('../command/src/main.ts', import.meta.url).pathname;
  const env = { ...process.env, KERBE_DATA: folder, KERBE_QUIET: '' };
  const child = spawn(process.execPath, ['--import', 'tsx', main, 'start'], { env, detached: true });
  let said = '';
  child.stdout!.on('data', (data: Buffer) => (said += String(data)));
  child.stderr!.on('data', (data: Buffer) => (said += String(data)));
  return { child, said: () => said };
}

// A terminal tells the whole group, whoever else the process alone.
test.each(
  MOMENTS.flatMap(
    (moment) =>
      [
        ['SIGINT', moment],
        ['SIGTERM', moment],
      ] as const,
  ),
)('%s after %s s of a start: all of it ends, and nothing is said of it', async (signal, moment) => {
  const { child, said } = starts();
  const exit = once(child, 'exit');
  await new Promise((resolve) => setTimeout(resolve, moment * 1000));
  const told = performance.now();
  process.kill(signal === 'SIGINT' ? -child.pid! : child.pid!, signal);
  await exit;
  await expect.poll(left, { timeout: WITHIN, interval: 50 }).toEqual([]);
  expect(performance.now() - told).toBeLessThan(WITHIN);
  expect(said()).not.toMatch(/\n\s+at |Error|started again/);
});

test('after all of that it starts, as if nothing had been', async () => {
  const { child, said } = starts();
  const exit = once(child, 'exit');
  await expect.poll(said, { timeout: 120_000, interval: 100 }).toContain('Kerbe is ready');
  child.kill('SIGTERM');
  await exit;
  await expect.poll(left, { timeout: WITHIN }).toEqual([]);
});
