import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import jsonPatch from 'fast-json-patch';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Cluster, startCluster } from '../command/src/cluster.ts';
import { freePort } from '../command/src/free-port.ts';
import { compute } from '../core/src/compute/compute.ts';
import { leaveIt, mayBeLeft } from '../core/src/cuts/left-on-purpose.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { PLAIN, VariantSchema } from '../core/src/machines/program-variant.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';
import { keepAsset } from '../web/src/lib/server/assets.ts';
import { migrate, openDatabase } from '../web/src/lib/server/database.ts';
import { createJob } from '../web/src/lib/server/jobs.ts';
import { keptRun, makePrograms } from '../web/src/lib/server/programs.ts';
import { PATIENT } from './patient.ts';

const REASON = 'tried on a scrap of it';

let folder: string;
let cluster: Cluster;
let db: ReturnType<typeof openDatabase>;
beforeAll(async () => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-left-`);
  process.env.KERBE_PROGRAMS = `${folder}/programs`;
  const port = await freePort(0, 'the database');
  cluster = await startCluster(`${folder}/cluster`, () => port);
  db = openDatabase(cluster.url, 8, PATIENT);
  await migrate(db);
});
afterAll(async () => {
  await db?.destroy();
  cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Programs of a job as it is, and those that a bench asks for. */
test.each([
  ['entrance-board', [{}, { turn: 0.02 }, { turn: -0.01 }]],
  ['garden-markers', [{}, { dry: true }, { turn: 0.02 }, { from: 2, stopped: [{ which: 0, line: 90, by: 'stroke' }] }]],
] as const)('%s: heading and notes of every program say what was left on purpose', async (name, variants) => {
  const file = readJobFile(readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'));
  const { job } = file;
  const bytes = new Map(Object.entries(file.assets).map(([hash, { base64 }]) => [hash, bytesFromBase64(base64)]));
  const resources = await resourcesFromDisk((hash) => bytes.get(hash));
  const { remarks } = await compute(job, resources, await clipperFromDisk());
  const advice = remarks.find(mayBeLeft)!;
  jsonPatch.applyPatch(job, leaveIt(job, advice, REASON, 'Asa', '2026-12-01T10:00:00.000Z'));
  for (const [hash, content] of bytes) await keepAsset(db, file.assets[hash].name, content);
  const { revision } = await createJob(db, job, name);
  const seen = new Set<string>();
  for (const change of variants) {
    const variant = VariantSchema.parse({ ...PLAIN, ...change });
    const { programs } = await makePrograms(db, name, revision, '2026-12-01', variant);
    const what = JSON.stringify(change);
    expect(programs.length, what).toBeGreaterThan(0);
    for (const { hash } of programs) {
      seen.add(hash);
      const { text } = await db
        .selectFrom('programs')
        .select('text')
        .where('hash', '=', hash)
        .executeTakeFirstOrThrow();
      expect(text, what).toMatch(new RegExp(`^\\(.*${REASON}.*\\)$`, 'm'));
      expect((await keptRun(hash)).settings.notes?.join(' '), what).toContain(REASON);
    }
  }
  // Each is another program.
  expect(seen.size).toBeGreaterThanOrEqual(variants.length);
});
