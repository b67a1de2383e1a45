import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import type { ChildProcess } from 'node:child_process';
import { startProcess, startStandIn } from '@kerbe/machine/stand-in/spawn';
import { ensureBuilt } from './built.ts';
import { type Cluster, startCluster } from './cluster.ts';
import { freePort } from './free-port.ts';
import { ROOT } from './paths.ts';

export interface ShopOptions {
  data: string;
  /** First ports to try; 0 takes any. */
  web: number;
  database: number;
  /** How much faster than real time the stand-in's clock runs. */
  rate: number;
  seed: number;
}

export interface Shop {
  address: string;
  processes: Record<'standIn' | 'runner' | 'web', ChildProcess>;
  /** Stops the web server alone and starts it again on the same port. */
  restartWeb(): Promise<void>;
  stop(): void;
}

/** Starts everything: database, stand-in router, bench runner and web server. */
export async function startShop({ data, web, database, rate, seed }: ShopOptions): Promise<Shop> {
  mkdirSync(data, { recursive: true });
  ensureBuilt();
  const databasePort = await freePort(database, 'the database');
  const cluster: Cluster = startCluster(`${data}/cluster`, () => databasePort);
  const token = secret(`${data}/runner-token`);
  const onLine = (line: string) => process.env.KERBE_QUIET || console.log(line);
  const programs = `${data}/programs`;
  const standIn = await startStandIn({ rate, seed });
  const runner = await startProcess(
    pathToFileURL(`${ROOT}/machine/src/runner/main.ts`),
    ['--port', '0', '--journal', `${data}/runs.jsonl`, '--programs', programs, '--lengths', `${data}/lengths.json`],
    { env: { ...process.env, KERBE_RUNNER_TOKEN: token }, onLine },
  );
  const webPort = await freePort(web, 'the web server');
  const startWeb = () =>
    startProcess(pathToFileURL(`${ROOT}/web/serve.ts`), ['--port', String(webPort)], {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        DATABASE_URL: cluster.url,
        KERBE_RUNNER_URL: `http://127.0.0.1:${runner.port}`,
        KERBE_RUNNER_TOKEN: token,
        KERBE_STAND_IN_PORT: String(standIn.port),
        KERBE_STAND_IN_HANDS: `http://127.0.0.1:${standIn.hands}`,
        KERBE_PROGRAMS: programs,
        KERBE_DEMO: `${ROOT}/demo`,
        KERBE_LOG: process.env.KERBE_LOG ?? 'warn',
      },
      onLine,
    });
  const server = await startWeb();
  const processes = { standIn: standIn.process, runner: runner.process, web: server.process };
  return {
    address: `http://127.0.0.1:${server.port}/`,
    processes,
    async restartWeb() {
      const gone = new Promise((resolve) => processes.web.once('exit', resolve));
      processes.web.kill();
      await gone;
      processes.web = (await startWeb()).process;
    },
    stop() {
      for (const child of Object.values(processes)) child.kill();
      cluster.stop();
    },
  };
}

/** A secret kept in a file that only its owner may read. */
function secret(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}
