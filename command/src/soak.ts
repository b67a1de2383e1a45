import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { Misuse } from './misuse.ts';
import { DATA, ROOT } from './paths.ts';

const Kept = z.object({ seed: z.number().int() });
/** Moments, and walks over the table, of one round. */
const ROUND = { moments: 100, walks: 150 };

/**
 * `./kerbe soak --minutes N [--seed S]`: tasks of a bench broken off at random moments, and random walks over its table,
 * on the stand-in in its own time. It goes on where the last soak ended, prints its seeds, and ends with 1 at the first
 * that fails.
 */
export async function soak(args: string[]): Promise<void> {
  const number = (name: string, fallback: number): number => {
    const at = args.indexOf(`--${name}`);
    const value = at < 0 ? fallback : Number(args[at + 1]);
    if (!Number.isFinite(value) || value < 0) throw new Misuse(`--${name} takes a number: ./kerbe soak --minutes 30.`);
    return value;
  };
  const file = `${DATA}/soak.json`;
  const kept = existsSync(file) ? Kept.safeParse(JSON.parse(readFileSync(file, 'utf8'))) : undefined;
  let seed = number('seed', kept?.success ? kept.data.seed : 1);
  const until = Date.now() + number('minutes', 10) * 60_000;
  let moments = 0;
  let walks = 0;
  while (Date.now() < until) {
    round('moments.test.ts', { KERBE_MOMENTS: String(ROUND.moments), KERBE_SEED: String(seed) });
    moments += ROUND.moments;
    round('table.test.ts', { KERBE_WALKS: String(ROUND.walks), KERBE_SEED: String(seed) });
    walks += ROUND.walks;
    console.log(`seeds ${seed} to ${seed + ROUND.moments - 1}: ${ROUND.moments} moments and ${ROUND.walks} walks held`);
    seed += ROUND.moments;
    mkdirSync(DATA, { recursive: true });
    writeFileSync(file, JSON.stringify({ seed }));
  }
  console.log(`${moments} moments and ${walks} walks held; the next soak goes on at seed ${seed}.`);
}

function round(test: string, env: Record<string, string>): void {
  const { status, stdout, stderr } = spawnSync(
    `${ROOT}/node_modules/.bin/vitest`,
    ['run', `machine/src/runner/${test}`],
    { cwd: ROOT, encoding: 'utf8', env: { ...process.env, ...env, NO_COLOR: '1' } },
  );
  if (status === 0) return;
  const said = `${stdout}\n${stderr}`
    .split('\n')
    .filter((line) => /AssertionError|Error:|Counterexample|seed/.test(line));
  throw new Error(
    `A round failed. Again with: ${Object.entries(env)
      .map(([name, value]) => `${name}=${value}`)
      .join(' ')} npx vitest run machine/src/runner/${test}\n${said.slice(0, 12).join('\n')}`,
  );
}
