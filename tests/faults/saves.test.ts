import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Shop, startShop } from '../../command/src/shop.ts';
import { random } from './random.ts';

// Web server and database are killed in turn at random moments, while saves come in. `./kerbe soak` does it many times.
const KILLS = Number(process.env.KERBE_KILLS ?? 4);
const SEED = Number(process.env.KERBE_SEED ?? 1);
/** Documents that are saved at the same time. */
const JOBS = ['comet-marker', 'entrance-board', 'night-light'];
/** Saves of each that come in between one kill and the next at most. */
const BETWEEN = 12;

let folder: string;
let shop: Shop;
beforeAll(async () => {
  process.env.KERBE_QUIET = '1';
  folder = mkdtempSync(`${tmpdir()}/kerbe-saves-`);
  shop = await startShop({ data: folder, web: 0, database: 0, rate: 60, seed: SEED });
}, 300_000);
afterAll(() => {
  shop?.stop();
  rmSync(folder, { recursive: true, force: true });
});

interface Opened {
  revision: string;
  job: { notes: string };
}

const at = (path: string) => new URL(path, shop.address);

/** What the server has of a job, however long it takes to be there again. */
async function opened(path: string): Promise<Opened> {
  for (;;) {
    try {
      const response = await fetch(at(path));
      if (response.ok) return (await response.json()) as Opened;
    } catch {
      // It is being started again.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Saves a job over and over until it is told to end. @returns the notes of each revision that was acknowledged. */
async function savesOf(id: string, goes: () => boolean, saved: () => void): Promise<Map<string, string>> {
  const acknowledged = new Map<string, string>();
  for (let count = 0; goes();) {
    const { revision, job } = await opened(`/api/jobs/${id}`);
    // From one to the next without asking, until one is not answered.
    for (let base = revision; goes();) {
      const notes = `save ${++count} of ${id}`;
      const response = await fetch(at(`/api/jobs/${id}`), {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ base, job: { ...job, notes } }),
      }).catch(() => undefined);
      const answer = (await response?.json().catch(() => undefined)) as { open: { revision: string } } | undefined;
      if (!response?.ok || !answer) break;
      acknowledged.set((base = answer.open.revision), notes);
      saved();
    }
  }
  return acknowledged;
}

test(`${KILLS} kills amid saves: every save that was acknowledged is kept`, { timeout: 3_600_000 }, async () => {
  const dice = random(SEED);
  let [on, count] = [true, 0];
  const more = () => void count++;
  const savers = JOBS.map((id) => savesOf(id, () => on, more));
  for (let kill = 0; kill < KILLS; kill++) {
    const due = count + 1 + Math.floor(dice() * BETWEEN * JOBS.length);
    while (count < due) await new Promise((resolve) => setTimeout(resolve, 5));
    const pid = kill % 2 === 0 ? shop.parts.web.pid : shop.database.pid();
    if (pid) process.kill(pid, 'SIGKILL');
  }
  const last = count + JOBS.length;
  while (count < last) await new Promise((resolve) => setTimeout(resolve, 50));
  on = false;
  const kept = await Promise.all(savers);
  for (const [k, acknowledged] of kept.entries()) {
    for (const [revision, notes] of acknowledged)
      expect((await opened(`/api/jobs/${JOBS[k]}/revisions/${revision}`)).job.notes).toBe(notes);
    // The newest is what opens.
    const head = await opened(`/api/jobs/${JOBS[k]}`);
    const [revision, notes] = [...acknowledged].at(-1)!;
    if (head.revision === revision) expect(head.job.notes).toBe(notes);
    else expect(BigInt(head.revision)).toBeGreaterThan(BigInt(revision));
  }
  console.log(
    `seed ${SEED}: ${KILLS} kills, ${kept.reduce((sum, { size }) => sum + size, 0)} saves acknowledged and kept`,
  );
});
