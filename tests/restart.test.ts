import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Shop, startShop } from '../command/src/shop.ts';
import type { RunnerState } from '../machine/src/runner/runner-state.ts';

let folder: string;
let shop: Shop;

beforeAll(async () => {
  process.env.KERBE_QUIET = '1';
  folder = mkdtempSync(`${tmpdir()}/kerbe-restart-`);
  shop = await startShop({ data: folder, web: 0, database: 0, rate: 60, seed: 3 });
}, 120_000);
afterAll(() => {
  shop?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const ask = async (path: string, body?: unknown) => {
  const response = await fetch(new URL(path, shop.address), {
    method: body === undefined ? 'GET' : 'POST',
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const data = await response.json();
  if (!response.ok) throw new Error(data.problem);
  return data;
};
const tell = (command: Record<string, unknown>): Promise<RunnerState> => ask('/api/bench/command', command);
const state = () => tell({ command: 'feed', percent: 100 });
async function when(condition: (s: RunnerState) => boolean): Promise<RunnerState> {
  for (let i = 0; i < 400; i++) {
    const now = await state();
    if (condition(now)) return now;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('waited too long');
}

test('a restarted web server does not stop a run, and its log learns how it ended', async () => {
  const { revision, job } = await ask('/api/jobs/comet-marker');
  const bit = job.bits.find((b: { id: string }) => b.id === 'v90');
  const hand = (what: Record<string, unknown>) => tell({ command: 'hand', hand: what });
  await tell({ command: 'connect' });
  await tell({ command: 'home' });
  await when((s) => s.doing === undefined && s.machine?.word === 'idle');
  await hand({ hand: 'stock', length: 200, width: 200, corners: [9, 9, 9, 9] });
  await hand({ hand: 'bit', name: bit.name, diameter: bit.diameter, angle: bit.angle, tip: bit.tip });
  await hand({ hand: 'plate', place: 'corner', corner: 'lower-left' });
  await hand({ hand: 'clip', on: true });
  await hand({ hand: 'tap', on: true });
  await when((s) => s.plateSeen);
  await hand({ hand: 'tap', on: false });
  const seen = await when((s) => s.machine?.touching === false && s.look?.plate !== undefined);
  const plate = seen.look!.plate as Record<'x0' | 'x1' | 'y0' | 'y1' | 'z1', number>;
  const tip = seen.look!.tip as Record<'x' | 'y' | 'z', number>;
  await tell({
    command: 'jog',
    x: (plate.x0 + plate.x1) / 2 - tip.x,
    y: (plate.y0 + plate.y1) / 2 - tip.y,
    feed: 4000,
  });
  await when((s) => s.machine?.word === 'idle');
  await new Promise((resolve) => setTimeout(resolve, 400));
  await tell({ command: 'jog', z: plate.z1 + 10 - tip.z, feed: 2000 });
  await new Promise((resolve) => setTimeout(resolve, 400));
  await when((s) => s.machine?.word === 'idle');
  await tell({
    command: 'zero',
    method: 'corner',
    corner: 'lower-left',
    plate: job.bench.plate,
    bit: { name: bit.name, diameter: bit.diameter, angle: bit.angle, tip: bit.tip },
    toZero: { x: 0, y: 0 },
    rise: -9,
  });
  await when((s) => s.zero !== undefined);
  await hand({ hand: 'clip', on: false });
  await hand({ hand: 'plate', place: 'away' });
  await when((s) => s.look?.plate === undefined && s.look?.clip === false && !s.doing);

  const { id } = await ask('/api/jobs/comet-marker/runs', { revision });
  const before = await when((s) => (s.run?.line ?? 0) > 50);
  await shop.restartWeb();
  const after = await state();
  expect(after.run?.id).toBe(id);
  expect(after.run!.line).toBeGreaterThanOrEqual(before.run!.line);
  await when((s) => s.run?.phase === 'bit-change');
  await tell({ command: 'stop' });
  await when((s) => s.run?.endedAt !== undefined);
  for (let i = 0; ; i++) {
    const { runs } = await ask('/api/jobs/comet-marker/runs');
    if (runs[0].phase === 'stopped') {
      expect(runs[0]).toMatchObject({ id, why: 'stopped by the operator' });
      expect(runs[0].minutes).toBeGreaterThan(0.5);
      break;
    }
    if (i > 40) throw new Error('the log did not learn of it');
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}, 120_000);
