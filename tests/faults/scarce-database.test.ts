import { sql } from 'kysely';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ROLES } from '../../command/src/cluster-access.ts';
import { openDatabase } from '../../web/src/lib/server/database.ts';
import { PATIENT } from '../patient.ts';
import { Answered, AtTheBench } from './at-the-bench.ts';

// A database that has too few connections left, or takes long over each save: what is not done is said in a sentence, and
// what was said to be kept is kept.
let bench: AtTheBench;
let db: ReturnType<typeof openDatabase>;
beforeAll(async () => {
  bench = await AtTheBench.open(8);
  db = openDatabase(bench.shop.database.url, 1, PATIENT);
}, 300_000);
afterAll(async () => {
  await db?.destroy();
  bench?.close();
});

interface Opened {
  revision: string;
  job: { notes: string };
}
const JOBS = ['comet-marker', 'entrance-board', 'night-light', 'sundial-face', 'meridian-plate'];
const open = (id: string) => bench.ask<Opened>(`/api/jobs/${id}`);
const save = ({ revision, job }: Opened, id: string, notes: string) =>
  bench.ask(`/api/jobs/${id}`, { base: revision, job: { ...job, notes } }, 'PUT');

const AWAY = /^The shop’s records cannot be reached at the moment/;
/** What became of work: its status, and the sentence where it is not done. */
const became = (work: Promise<unknown>): Promise<[number, string]> =>
  work.then(
    () => [200, ''],
    (error: unknown) => {
      if (error instanceof Answered) return [error.status, error.problem];
      throw error;
    },
  );

/** Ends the connections that the web server has, so that it needs new ones. */
const endConnections = () =>
  sql`select pg_terminate_backend(pid) from pg_stat_activity where usename = ${ROLES.server}`.execute(db);

test.each([2, 0])(
  'with %i connections left saves are kept, or refused in a sentence, and the bench is commanded',
  async (most) => {
    const before = await Promise.all(JOBS.map(open));
    await sql.raw(`alter role ${ROLES.server} connection limit ${most}`).execute(db);
    await endConnections();
    const wanted = JOBS.map((id) => `with ${most} left, ${id}`);
    let saved: [number, string][];
    try {
      const asked = JOBS.map((id, k) => became(save(before[k], id, wanted[k])));
      const read = Array.from({ length: 20 }, (_, k) => became(open(JOBS[k % JOBS.length])));
      saved = await Promise.all(asked);
      for (const [status, problem] of [...saved, ...(await Promise.all(read))]) {
        expect([200, 503]).toContain(status);
        if (status === 503) expect(problem).toMatch(AWAY);
      }
      if (most === 0) expect(saved.map(([status]) => status)).toEqual(JOBS.map(() => 503));
      expect(await became(bench.tell({ command: 'release' }))).toEqual([
        expect.any(Number),
        expect.not.stringMatching(/database/),
      ]);
    } finally {
      await sql.raw(`alter role ${ROLES.server} connection limit -1`).execute(db);
    }
    const after = await Promise.all(
      JOBS.map((id) =>
        bench.eventually(
          () => open(id),
          () => true,
        ),
      ),
    );
    for (const [k, { job, revision }] of after.entries())
      if (saved[k][0] === 200) expect(job.notes).toBe(wanted[k]);
      else expect([revision, job.notes]).toEqual([before[k].revision, before[k].job.notes]);
  },
);

test('a save that the database takes too long over is refused, nothing of it is kept, and the next is', async () => {
  const [id] = JOBS;
  const before = await open(id);
  await sql
    .raw(
      `create function too_long() returns trigger language plpgsql as 'begin perform pg_sleep(60); return new; end';
       create trigger too_long before insert on revisions for each row execute function too_long()`,
    )
    .execute(db);
  try {
    const [status, problem] = await became(save(before, id, 'too late'));
    expect([status, problem]).toEqual([503, expect.stringMatching(AWAY)]);
    // Others are not kept waiting for it.
    expect(await became(open(JOBS[1]))).toEqual([200, '']);
  } finally {
    await sql.raw('drop trigger too_long on revisions; drop function too_long').execute(db);
  }
  expect(await open(id)).toEqual(before);
  await save(before, id, 'in time');
  expect((await open(id)).job.notes).toBe('in time');
});
