import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { startProcess, startStandIn } from '@kerbe/machine/stand-in/spawn';
import { ensureBuilt } from './built.ts';
import { type Cluster, startCluster } from './cluster.ts';
import { freePort } from './free-port.ts';
import { keepCluster } from './kept-cluster.ts';
import { ROOT } from './paths.ts';
import { ShopLock } from './shop-lock.ts';
import { Supervised } from './supervised.ts';

export interface ShopOptions {
  data: string;
  /** First ports to try; 0 takes any. */
  web: number;
  database: number;
  /** How much faster than real time the stand-in's clock runs. */
  rate: number;
  seed: number;
}

export type Part = 'standIn' | 'runner' | 'web';

export interface Shop {
  address: string;
  parts: Record<Part, Supervised>;
  database: Cluster;
  /** The runner's own record of runs, and where the simulated machine is looked at. */
  journal: string;
  hands: string;
  stop(): void;
}

/**
 * Starts everything: database, stand-in router, bench runner and web server. Each stands alone: what ends is started
 * again, and the others go on.
 * @throws {AlreadyRunning} where a shop is running on these data.
 */
export async function startShop({ data, web, database, rate, seed }: ShopOptions): Promise<Shop> {
  const lock = ShopLock.claim(data);
  try {
    return await start(lock, { data, web, database, rate, seed });
  } catch (error) {
    lock.release();
    throw error;
  }
}

async function start(lock: ShopLock, { data, web, database, rate, seed }: ShopOptions): Promise<Shop> {
  mkdirSync(data, { recursive: true });
  ensureBuilt();
  const say = (sentence: string) => process.env.KERBE_QUIET || console.error(sentence);
  const onLine = (line: string) => process.env.KERBE_QUIET || console.log(line);
  const databasePort = await freePort(database, 'the database');
  const cluster = startCluster(`${data}/cluster`, () => databasePort);
  const token = secret(`${data}/runner-token`);
  const programs = `${data}/programs`;
  const journal = `${data}/runs.jsonl`;
  // Each keeps its port, so that the others find it when it was started again.
  const [machinePort, handsPort, runnerPort] = [
    await freePort(0, 'the stand-in'),
    await freePort(0, 'its hands'),
    await freePort(0, 'the bench runner'),
  ];
  const webPort = await freePort(web, 'the web server');
  const parts: Shop['parts'] = {
    standIn: new Supervised(
      'stand-in router',
      async () => (await startStandIn({ rate, seed, port: machinePort, hands: handsPort })).process,
      say,
    ),
    runner: new Supervised(
      'bench runner',
      async () =>
        (
          await startProcess(
            pathToFileURL(`${ROOT}/machine/src/runner/main.ts`),
            [
              '--port',
              String(runnerPort),
              '--journal',
              journal,
              '--programs',
              programs,
              '--lengths',
              `${data}/lengths.json`,
            ],
            { env: { ...process.env, KERBE_RUNNER_TOKEN: token }, onLine },
          )
        ).process,
      say,
    ),
    web: new Supervised(
      'web server',
      async () =>
        (
          await startProcess(pathToFileURL(`${ROOT}/web/serve.ts`), ['--port', String(webPort)], {
            env: {
              ...process.env,
              NODE_ENV: 'production',
              DATABASE_URL: cluster.url,
              KERBE_RUNNER_URL: `http://127.0.0.1:${runnerPort}`,
              KERBE_RUNNER_TOKEN: token,
              KERBE_STAND_IN_PORT: String(machinePort),
              KERBE_STAND_IN_HANDS: `http://127.0.0.1:${handsPort}`,
              KERBE_PROGRAMS: programs,
              KERBE_DEMO: `${ROOT}/demo`,
              KERBE_LOG: process.env.KERBE_LOG ?? 'warn',
            },
            onLine,
          })
        ).process,
      say,
    ),
  };
  const address = `http://127.0.0.1:${webPort}/`;
  const all = [parts.standIn, parts.runner, parts.web];
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
    cluster.stop();
    throw error;
  }
  const telling = setInterval(tell, 2000);
  const leaveCluster = keepCluster(cluster, say);
  return {
    address,
    parts,
    database: cluster,
    journal,
    hands: `http://127.0.0.1:${handsPort}`,
    stop() {
      clearInterval(telling);
      leaveCluster();
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

/** A secret kept in a file that only its owner may read. */
function secret(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}
