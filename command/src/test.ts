import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { DATA, ROOT } from './paths.ts';

interface Outcome {
  passed: number;
  failed: number;
}

const OUT = `${DATA}/test`;

/** `./kerbe test`: every check, ending in one line `N passed, N failed`. */
export async function test(args: string[]): Promise<void> {
  rmSync(OUT, { recursive: true, force: true });
  mkdirSync(OUT, { recursive: true });
  const total: Outcome = { passed: 0, failed: 0 };
  const only = args[0];
  const checks: [string, string, string[], string?, (() => Outcome)?][] = [
    ['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
    ['lint', 'eslint', ['--max-warnings', '0', '.']],
    ['types of core', 'tsc', ['-p', 'core']],
    ['types of machine', 'tsc', ['-p', 'machine']],
    ['types of command', 'tsc', ['-p', 'command']],
    ['types of tests', 'tsc', ['-p', 'tests']],
    ['types of web, kit', 'svelte-kit', ['sync'], 'web'],
    ['types of web', 'svelte-check', ['--threshold', 'warning', '--output', 'human'], 'web'],
    [
      'direction of dependencies',
      'depcruise',
      ['--config', '.dependency-cruiser.cjs', 'core/src', 'machine/src', 'command/src', 'web/src', 'web/serve.ts'],
    ],
    [
      'unit tests',
      'vitest',
      ['run', '--reporter=default', '--reporter=json', `--outputFile=${OUT}/unit.json`],
      undefined,
      unit,
    ],
    ['browser tests', 'playwright', ['test', '-c', 'tests'], undefined, browser],
  ];
  for (const [name, tool, parameters, folder, count] of checks) {
    if (only && !name.startsWith(only)) continue;
    const started = Date.now();
    const done = spawnSync(`${ROOT}/node_modules/.bin/${tool}`, parameters, {
      cwd: folder ? `${ROOT}/${folder}` : ROOT,
      encoding: 'utf8',
      maxBuffer: 256_000_000,
      env: { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' },
    });
    const ok = done.status === 0;
    let outcome: Outcome = ok ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
    if (count) {
      try {
        outcome = count();
      } catch {
        outcome = { passed: 0, failed: 1 };
      }
      if (!ok && outcome.failed === 0) outcome.failed = 1;
    }
    total.passed += outcome.passed;
    total.failed += outcome.failed;
    console.log(
      `${ok ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - started) / 1000).toFixed(1)} s${count ? `, ${outcome.passed} passed` : ''})`,
    );
    if (!ok) console.log(`${done.stdout}\n${done.stderr}`.trim().split('\n').slice(-120).join('\n'));
  }
  console.log(`${total.passed} passed, ${total.failed} failed`);
  process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
}

function unit(): Outcome {
  const report = JSON.parse(readFileSync(`${OUT}/unit.json`, 'utf8')) as {
    numPassedTests: number;
    numFailedTests: number;
  };
  return { passed: report.numPassedTests, failed: report.numFailedTests };
}

function browser(): Outcome {
  const { stats } = JSON.parse(readFileSync(`${OUT}/browser.json`, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number };
  };
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
}
