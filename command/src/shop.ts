import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { z } from 'zod';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BenchSchema } from '@kerbe/core/machines/bench-schema';
import { standInOf } from '@kerbe/machine/kinds/stand-ins';
import { startProcess } from '@kerbe/machine/kinds/start-process';
import { BUNDLES } from './bundles.ts';
import { ensureBuilt } from './built.ts';
import { type Cluster, startCluster } from './cluster.ts';
import { freePort } from './free-port.ts';
import { keepCluster } from './kept-cluster.ts';
import { ROOT } from './paths.ts';
import { ShopLock } from './shop-lock.ts';
import { Supervised } from './supervised.ts';

export interface ShopOptions {
  /** Gives the start up: nothing of it runs then, and nobody is kept out. */
  signal?: AbortSignal;
  data: string;
  /** First ports to try; 0 takes any. */
  web: number;
  database: number;
  /** How much faster than real time the stand-in's clock runs. */
  rate: number;
  seed: number;
}

export type Part = 'standIn' | 'runner' | 'web';

/** A bench with its simulated machine and its runner, each a process of its own. */
export interface BenchParts {
  standIn: Supervised;
  runner: Supervised;
  /** The runner's own record of runs, and where the simulated machine is looked at. */
  journal: string;
  hands: string;
  /** What the web server has to know of it. */
  door: { id: string; name: string; runner: string; standIn: number; hands: string };
}

export interface Shop {
  address: string;
  /** Of the first bench, and the web server. */
  parts: Record<Part, Supervised>;
  /** By their ids. */
  benches: Record<string, BenchParts>;
  database: Cluster;
  /** Of the first bench. */
  journal: string;
  hands: string;
  stop(): void;
}

/**
 * Starts everything: database, a stand-in router and a runner for each bench that has one, and the web server. Each stands alone: what ends is started
 * again, and the others go on.
 * @throws {AlreadyRunning} where a shop is running on these data; the signal’s reason.
 */
export async function startShop(options: ShopOptions): Promise<Shop> {
  const lock = ShopLock.claim(options.data);
  try {
    return await start(lock, options);
  } catch (error) {
    lock.release();
    throw error;
  }
}

/** What is told of a start, and what ends it. */
interface Starting extends Omit<ShopOptions, 'signal'> {
  lock: ShopLock;
  cluster: Cluster;
  /** Ends what is being started, now or later. */
  ending: AbortController;
  say: (sentence: string) => unknown;
  onLine: (line: string) => unknown;
}

async function start(lock: ShopLock, { signal, ...options }: ShopOptions): Promise<Shop> {
  const { data, database } = options;
  const ending = new AbortController();
  signal?.throwIfAborted();
  signal?.addEventListener('abort', () => ending.abort(signal.reason));
  mkdirSync(data, { recursive: true });
  await ensureBuilt(ending.signal);
  process.env.KERBE_BUNDLES = BUNDLES;
  const say = (sentence: string) => process.env.KERBE_QUIET || console.error(sentence);
  // What is a fault of ours is told all the same.
  const onLine = (line: string) => (process.env.KERBE_QUIET && !line.startsWith('{"level":50')) || console.log(line);
  const databasePort = await freePort(database, 'the database');
  const cluster = await startCluster(`${data}/cluster`, () => databasePort, ending.signal);
  try {
    return await startParts({ ...options, lock, cluster, ending, say, onLine });
  } catch (error) {
    cluster.stop();
    throw error;
  }
}

/** Everything but the database. @throws after all that was started is told to end; the database goes on. */
async function startParts(starting: Starting): Promise<Shop> {
  const { lock, data, cluster, ending, say, rate, seed, web } = starting;
  const token = secret(`${data}/runner-token`);
  const shopsBenches = BenchesSchema.parse(JSON.parse(readFileSync(`${ROOT}/demo/benches.json`, 'utf8')));
  const benches: Record<string, BenchParts> = {};
  for (const bench of shopsBenches.filter(({ link }) => link === 'stand-in')) {
    const known = Object.keys(benches).length;
    const own = { data: ownFolder(data, bench.id, known === 0), rate, seed: seed + known };
    benches[bench.id] = await benchParts(bench, token, starting, own);
  }
  const [first] = Object.values(benches);
  const webPort = await freePort(web, 'the web server');
  const server = webServer(webPort, token, Object.values(benches), starting);
  const parts: Shop['parts'] = { standIn: first.standIn, runner: first.runner, web: server };
  const address = `http://127.0.0.1:${webPort}/`;
  const all = [...Object.values(benches).flatMap(({ standIn, runner }) => [standIn, runner]), parts.web];
  let told = '';
  const tell = () => {
    const pids = all.map(({ pid }) => pid);
    if (told === String(pids)) return;
    try {
      lock.tell(address, pids);
      told = String(pids);
    } catch (error) {
      say(`The shop’s own notes could not be written (${String(error)}).`);
    }
  };
  try {
    for (const part of all) {
      await part.start();
      tell();
    }
  } catch (error) {
    for (const part of all) part.stop();
    throw error;
  }
  const telling = setInterval(tell, 2000);
  const leaveCluster = keepCluster(cluster, say);
  return {
    address,
    parts,
    database: cluster,
    benches,
    journal: first.journal,
    hands: first.hands,
    stop() {
      clearInterval(telling);
      leaveCluster();
      ending.abort();
      for (const part of all) part.stop();
      try {
        if (cluster.pid() !== undefined) cluster.stop();
      } catch (error) {
        say(`The database could not be stopped (${String(error)}).`);
      }
      lock.release();
    },
  };
}

function webServer(port: number, token: string, benches: BenchParts[], starting: Starting): Supervised {
  const { data, cluster, ending, say, onLine } = starting;
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    DATABASE_URL: cluster.serverUrl,
    DATABASE_OWNER_URL: cluster.ownerUrl,
    KERBE_BENCHES: JSON.stringify(benches.map(({ door }) => door)),
    KERBE_RUNNER_TOKEN: token,
    KERBE_PROGRAMS: `${data}/programs`,
    KERBE_DEMO: `${ROOT}/demo`,
    KERBE_LOG: process.env.KERBE_LOG ?? 'warn',
  };
  const { signal } = ending;
  const file = pathToFileURL(`${ROOT}/web/serve.ts`);
  const begin = () => startProcess(file, ['--port', String(port)], { env, onLine, signal });
  return new Supervised('web server', async () => (await begin()).process, say);
}

const BenchesSchema = z.array(BenchSchema).refine((all) => all.some(({ link }) => link === 'stand-in'));

/** The folder in which a bench's records lie. Before there were several benches those of the first lay beside the rest. */
function ownFolder(data: string, id: string, first: boolean): string {
  const folder = `${data}/benches/${id}`;
  mkdirSync(folder, { recursive: true });
  for (const file of first ? ['runs.jsonl', 'lengths.json'] : [])
    if (existsSync(`${data}/${file}`) && !existsSync(`${folder}/${file}`))
      renameSync(`${data}/${file}`, `${folder}/${file}`);
  return folder;
}

/** A simulated machine and a runner for a bench. Each keeps its port, so that the others find it when it was started again. */
async function benchParts(
  bench: BaseBench,
  token: string,
  { data: shops, ending, say, onLine }: Starting,
  { data, rate, seed }: { data: string; rate: number; seed: number },
): Promise<BenchParts> {
  const { id, name } = bench;
  const { signal } = ending;
  const [machinePort, handsPort, runnerPort] = [
    await freePort(0, `the stand-in of ${name}`),
    await freePort(0, 'its hands'),
    await freePort(0, `the runner of ${name}`),
  ];
  const journal = `${data}/runs.jsonl`;
  const values = { port: runnerPort, journal, programs: `${shops}/programs`, lengths: `${data}/lengths.json` };
  const args = Object.entries(values).flatMap(([key, value]) => [`--${key}`, String(value)]);
  const runner = pathToFileURL(`${ROOT}/machine/src/runner/main.ts`);
  const env = { ...process.env, KERBE_RUNNER_TOKEN: token };
  // Nobody else lends a hand: no page in a browser, and no other program.
  const secret = randomBytes(24).toString('hex');
  const hands = `http://127.0.0.1:${handsPort}/${secret}`;
  const made = { rate, seed, port: machinePort, hands: handsPort, secret, signal };
  return {
    journal,
    hands,
    door: { id, name, runner: `http://127.0.0.1:${runnerPort}`, standIn: machinePort, hands },
    standIn: new Supervised(`stand-in of ${name}`, async () => (await standInOf(bench)(bench, made)).process, say),
    runner: new Supervised(
      `runner of ${name}`,
      async () => (await startProcess(runner, args, { env, onLine, signal })).process,
      say,
    ),
  };
}

/** A secret kept in a file that only its owner may read. */
function secret(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}
