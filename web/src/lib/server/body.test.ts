import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, rmSync, utimesSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { spooled, sweepLeft } from './body.ts';

// A folder of its own: uploads of other processes of this computer are none of this test.
const before = process.env.TMPDIR;
let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'kerbe-sweep-'));
  process.env.TMPDIR = folder;
});
afterAll(() => {
  if (before === undefined) delete process.env.TMPDIR;
  else process.env.TMPDIR = before;
  rmSync(folder, { recursive: true });
});

test('what a killed process had taken in is swept, what is being taken in stays', async () => {
  const { pid } = spawnSync('true');
  const made = (name: string, hours = 0) => {
    const at = join(folder, name);
    mkdirSync(at);
    const then = Date.now() / 1000 - 3600 * hours;
    utimesSync(at, then, then);
    return at;
  };
  const dead = made(`kerbe-in-${pid}-abc`);
  const [old, fresh, other] = [made('kerbe-in-aBc123', 2), made('kerbe-in-xYz789'), made('someone-elses', 9)];
  await spooled(new Request('http://here/', { method: 'POST', body: 'words' }), 100, async (file) => {
    await sweepLeft();
    expect(existsSync(file)).toBe(true);
  });
  expect([dead, old, fresh, other].map((at) => existsSync(at))).toEqual([false, false, true, true]);
});
