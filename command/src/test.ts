import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { setPriority } from 'node:os';
import { ensureBuilt } from './built.ts';
import { Misuse } from './misuse.ts';
import { DATA, ROOT } from './paths.ts';

interface Outcome {
  passed: number;
  failed: number;
}

const OUT = `${DATA}/test`;

interface Check {
  name: string;
  tool: string;
  args: string[];
  /** Workspace it is called in; the root where it is left out. */
  folder?: string;
  env?: Record<string, string>;
  /** Reads how many tests passed and failed from the report that the tool wrote. */
  count?: () => Outcome;
}

/** Checks that only read the sources: beside tests that wait for clocks, and behind them. */
const READING: Check[] = [
  { name: 'lint', tool: 'eslint', args: ['--max-warnings', '0', '.'] },
  { name: 'types of web', tool: 'svelte-check', args: ['--threshold', 'warning', '--output', 'human'], folder: 'web' },
  { name: 'format', tool: 'prettier', args: ['--check', '--log-level', 'warn', '.'] },
  // The tests' project takes in the machine's and the command's.
  ...['core', 'tests'].map((p) => ({ name: `types of ${p}`, tool: 'tsc', args: ['-p', p] })),
  {
    name: 'direction of dependencies',
    tool: 'depcruise',
    args: ['--config', '.dependency-cruiser.cjs', 'core/src', 'machine/src', 'command/src', 'web/src', 'web/serve.ts'],
  },
];

/** Unit tests of a project of vitest’s. */
const unitTests = (name: string, project: string): Check => {
  const file = `${OUT}/${project}.json`;
  return {
    name,
    tool: 'vitest',
    args: ['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile=${file}`],
    count: () => unit(file),
  };
};
/** Types that the kit writes from the routes: checks and tests of the web read them, so it goes before any. */
const SYNC: Check = { name: 'types of web, kit', tool: 'svelte-kit', args: ['sync'], folder: 'web' };
const COMPUTED = unitTests('unit tests', 'computation');
const CLOCKED = unitTests('unit tests by the clock', 'machines');

/** Browser tests of a project of Playwright’s, each with a shop of its own. */
const browserTests = (name: string, project: string): Check => ({
  name,
  tool: 'playwright',
  args: ['test', '-c', 'tests', '--project', project],
  env: { KERBE_PART: project },
  count: () => browser(`${OUT}/${project}.json`),
});
const MACHINES = browserTests('browser tests, machines', 'machines-in-browser');
const PAGES = browserTests('browser tests, pages', 'pages');

/**
 * How far behind others a check goes that computes or only reads, and pages, which have no clock but their reader’s patience.
 * Not further: beside other work on the machine, which is behind nobody, these would hardly ever be done.
 */
const BEHIND = 5;
const AFTER_MACHINES = 2;

/** `./kerbe test [CHECK]`: every check, or those whose names begin so, ending in one line `N passed, N failed`. */
export async function test(args: string[]): Promise<void> {
  const checks = [MACHINES, PAGES, CLOCKED, COMPUTED, ...READING];
  if (args.length > 1 || !checks.some(({ name }) => name.startsWith(args[0] ?? '')))
    throw new Misuse(`There is no check “${args.join(' ')}”; there are ${checks.map(({ name }) => name).join('; ')}.`);
  rmSync(OUT, { recursive: true, force: true });
  mkdirSync(OUT, { recursive: true });
  const total: Outcome = { passed: 0, failed: 0 };
  const checkAll = async (checks: Check[], priority = 0) => {
    for (const check of checks.filter((c) => c === SYNC || !args[0] || c.name.startsWith(args[0]))) {
      const { passed, failed } = await run(check, priority);
      total.passed += passed;
      total.failed += failed;
    }
  };
  await checkAll([SYNC]);
  await ensureBuilt();
  // What waits for clocks has the right of way; what computes and reads fills the gaps.
  const behind = [checkAll([COMPUTED], BEHIND), checkAll(READING, BEHIND)];
  await Promise.all([checkAll([MACHINES]), checkAll([CLOCKED]), checkAll([PAGES], AFTER_MACHINES), ...behind]);
  console.log(`${total.passed} passed, ${total.failed} failed`);
  process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
}

async function run({ name, tool, args, folder, env, count }: Check, priority: number): Promise<Outcome> {
  const started = Date.now();
  const said: Buffer[] = [];
  const code = await new Promise<number | null>((resolve) => {
    const child = spawn(`${ROOT}/node_modules/.bin/${tool}`, args, {
      cwd: folder ? `${ROOT}/${folder}` : ROOT,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env, FORCE_COLOR: '0', NO_COLOR: '1' },
    });
    if (priority && child.pid) setPriority(child.pid, priority);
    child.stdout.on('data', (data: Buffer) => said.push(data));
    child.stderr.on('data', (data: Buffer) => said.push(data));
    child.on('error', (error) => {
      said.push(Buffer.from(String(error)));
      resolve(null);
    });
    child.on('close', resolve);
  });
  const ok = code === 0;
  let outcome: Outcome = ok ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
  if (count) {
    try {
      outcome = count();
    } catch {
      outcome = { passed: 0, failed: 1 };
    }
    if (!ok && outcome.failed === 0) outcome.failed = 1;
  }
  const seconds = ((Date.now() - started) / 1000).toFixed(1);
  console.log(`${ok ? 'ok    ' : 'FAILED'} ${name} (${seconds} s${count ? `, ${outcome.passed} passed` : ''})`);
  if (!ok) console.log(Buffer.concat(said).toString().trim().split('\n').slice(-240).join('\n'));
  return outcome;
}

function unit(file: string): Outcome {
  const report = JSON.parse(readFileSync(file, 'utf8')) as {
    numPassedTests: number;
    numFailedTests: number;
  };
  return { passed: report.numPassedTests, failed: report.numFailedTests };
}

function browser(file: string): Outcome {
  const { stats } = JSON.parse(readFileSync(file, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number };
  };
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
}
