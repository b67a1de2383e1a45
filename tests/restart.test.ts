import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Shop, startShop } from '../command/src/shop.ts';
import { routerState } from '../machine/src/kinds/router/messages.ts';
import type { RunnerState } from '../machine/src/runner/runner-state.ts';

/** How long it is waited for what is to come, ms: patience, and no measure of speed. */
const PATIENCE = 240_000;

let folder: string;
let shop: Shop;

beforeAll(async () => {
  process.env.KERBE_QUIET = '1';
  folder = mkdtempSync(`${tmpdir()}/kerbe-restart-`);
  shop = await startShop({ data: folder, web: 0, database: 0, rate: 60, seed: 3 });
});
afterAll(() => {
  shop?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const ask = async (path: string, body?: unknown) => {
  const response = await fetch(new URL(path, shop.address), {
    method: body === undefined ? 'GET' : 'POST',
    headers: { 'x-kerbe-page': 'test-page', ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const data = await response.json();
  if (!response.ok) throw new Error(data.problem);
  return data;
};
async function eventually(condition: () => Promise<boolean>): Promise<void> {
  for (const until = Date.now() + PATIENCE; Date.now() < until;) {
    if (await condition().catch(() => false)) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('waited too long');
}
const tell = (command: Record<string, unknown>): Promise<RunnerState> =>
  ask('/api/benches/dome-workshop/command', command);
const state = () => tell({ command: 'take' });
const hand = (what: Record<string, unknown>) => ask('/api/benches/dome-workshop/stand-in', what);
async function when(condition: (s: RunnerState) => boolean): Promise<RunnerState> {
  for (const until = Date.now() + PATIENCE; Date.now() < until;) {
    const now = await state();
    if (condition(now)) return now;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('waited too long');
}
const ready = () => when((s) => s.bench === 'ready');
/** As many single steps as a way needs. */
async function go(axis: 'x' | 'y' | 'z', by: number): Promise<void> {
  for (let left = by; Math.abs(left) > 1e-6;) {
    const step = Math.max(-25, Math.min(25, left));
    await tell({ command: 'step', axis, by: step, feed: 4000 });
    await ready();
    left -= step;
  }
}

test('a restarted web server does not stop a run, and its log learns how it ended', async () => {
  const { revision, job } = await ask('/api/jobs/comet-marker');
  const { id: bitId, name, diameter, angle, tip } = job.bits.find((b: { id: string }) => b.id === 'v90');
  await tell({ command: 'connect', job: 'comet-marker' });
  await tell({ command: 'home' });
  await ready();
  await hand({ hand: 'stock', length: 200, width: 180, corners: [9, 9.1, 9, 8.9] });
  await hand({ hand: 'bit', id: bitId, name, diameter, angle, tip });
  await tell({ command: 'bit-in', bit: { id: bitId, name, diameter, angle, tip } });
  await hand({ hand: 'plate', place: 'corner', corner: 'lower-left' });
  await hand({ hand: 'clip', on: true });
  await hand({ hand: 'tap', on: true });
  await when((s) => s.circuit !== undefined);
  await hand({ hand: 'tap', on: false });
  await when((s) => routerState(s.machine)?.touching === false);
  const { plate, tip: over } = await ask('/api/benches/dome-workshop/stand-in');
  await go('x', (plate.x0 + plate.x1) / 2 - over.x);
  await go('y', (plate.y0 + plate.y1) / 2 - over.y);
  await go('z', plate.z1 + 10 - over.z);
  await tell({ command: 'zero', job: 'comet-marker', method: 'corner', corner: 'lower-left' });
  await when((s) => s.zero?.z !== undefined);
  await ready();
  await hand({ hand: 'clip', on: false });
  await hand({ hand: 'plate', place: 'away' });
  for (const step of ['warm', 'pins', 'held', 'plate', 'dust', 'eyes', 'hand'])
    await tell({ command: 'tick', step, on: true, job: 'comet-marker' });

  const { checked } = await ask('/api/jobs/comet-marker/check', { revision, which: 0 });
  expect(checked.findings).toEqual([]);
  const { id } = await ask('/api/jobs/comet-marker/runs', { hash: checked.hash, token: checked.token });
  const before = await when((s) => (s.run?.line ?? 0) > 50);
  const webBefore = shop.parts.web.pid!;
  process.kill(webBefore, 'SIGKILL');
  await eventually(() => fetch(shop.address).then((r) => r.ok && shop.parts.web.pid !== webBefore));
  const after = await state();
  expect(after.run?.id).toBe(id);
  expect(after.run!.line).toBeGreaterThanOrEqual(before.run!.line);
  const change = await when((s) => s.bench === 'changing');
  await tell({ command: 'stop' });
  await when((s) => s.run?.endedAt !== undefined);
  for (;;) {
    const { runs } = await ask('/api/jobs/comet-marker/runs');
    if (runs[0].phase === 'stopped') {
      expect(runs[0]).toMatchObject({ id, why: 'stopped by the operator', line: change.run!.line });
      expect(runs[0].minutes).toBeGreaterThan(0.5);
      break;
    }
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
});
