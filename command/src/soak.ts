import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { Misuse } from './misuse.ts';
import { DATA, ROOT } from './paths.ts';

const Kept = z.object({
  seed: z.number().int().default(1),
  fuzz: z.number().int().default(1),
  judge: z.number().int().default(1),
});
/** Moments, lost arcs, lost links and counts of each machine, each single moment, walks over the table, kills, and kills amid saves of one round. */
const ROUND = { moments: 100, arcs: 60, links: 20, each: 10, walks: 150, kills: 20, saves: 60 };
/** Moments of a start at which it is told to end, s, and how long it may take to, ms. */
const STARTS = { moments: '0.3,1,2,3,4,5,6,7,8,9,10,12,14,16', within: 5000 };
/** Lines of the three long programs that the first round runs. */
const LONG = 200_000;
/** Mutants of each kind in one round of `--fuzz`. */
const MUTANTS = 1000;
/** Drawings of each kind of cut in one round of `--judge`. */
const JUDGED = 50;
/** And of each of three kinds that are cut in eight ways. */
const COMPARED = 10;
/** Faults in one sample of `--mutants`. */
const SAMPLE = 100;
const USE =
  './kerbe soak [--judge] --minutes 30, or ./kerbe soak --fuzz --count 20000, or ./kerbe soak --mutants core/motion --count 100; all take --seed.';

/**
 * `./kerbe soak --minutes N [--seed S]`: tasks of a bench broken off at random moments, arcs lost at others and the rest
 * taken up, random walks over its table, and processes of a whole shop killed and stalled.
 * `./kerbe soak --fuzz [--count N] [--seed S]`: mutants of everything that comes in.
 * `./kerbe soak --judge [--minutes N] [--seed S]`: drawings and settings by chance, cut and judged by brute force.
 * `./kerbe soak --mutants ROOM [--count N] [--seed S]`: faults put into a room’s sources by chance, and whether the tests
 * notice. The others go on where the last soak ended, print their seeds, and end with 1 at the first that fails; this one
 * tries the same sample until all of it was tried.
 */
export async function soak(args: string[]): Promise<void> {
  let given: ReturnType<typeof parsed>;
  try {
    given = parsed(args);
  } catch {
    throw new Misuse(`${args.join(' ')} is not understood: ${USE}`);
  }
  const number: Numbers = (name, fallback) => {
    const value = given[name] === undefined ? fallback : Number(given[name]);
    if (!Number.isFinite(value) || value < 0) throw new Misuse(`--${name} takes a number: ${USE}`);
    return value;
  };
  const file = `${DATA}/soak.json`;
  const kept = read(file);
  const keep = (changed: Partial<z.infer<typeof Kept>>) => {
    Object.assign(kept, changed);
    mkdirSync(DATA, { recursive: true });
    writeFileSync(file, JSON.stringify(kept));
  };
  if (given.mutants !== undefined) return tryMutants(given.mutants, number('seed', 1), number('count', SAMPLE));
  if (given.fuzz) return fuzzed(number('count', 20_000), number('seed', kept.fuzz), (fuzz) => keep({ fuzz }));
  const until = Date.now() + number('minutes', 10) * 60_000;
  if (given.judge) return judged(until, number('seed', kept.judge), (judge) => keep({ judge }));
  return brokenOff(until, number('seed', kept.seed), (seed) => keep({ seed }));
}

type Numbers = (name: 'minutes' | 'count' | 'seed', fallback: number) => number;
/** Keeps the seed that the next soak goes on at. */
type Keep = (seed: number) => void;

async function tryMutants(room: string, seed: number, count: number): Promise<void> {
  // What makes mutants is read where they are wanted only: it takes a while.
  const { mutants } = await import('./mutants/mutants.ts');
  await mutants(room, seed, count);
}

async function fuzzed(count: number, seed: number, keep: Keep): Promise<void> {
  for (let done = 0; done < count; done += MUTANTS) {
    const env = { KERBE_MUTANTS: String(Math.min(MUTANTS, count - done)), KERBE_SEED: String(seed) };
    await round('tests/faults/fuzz.test.ts', env);
    await round('tests/program-mutants.test.ts', env);
    console.log(`seed ${seed}: ${Math.min(count, done + MUTANTS)} of each kind done`);
    keep(++seed);
  }
  console.log(`${count} mutants of each kind held; the next soak goes on at seed ${seed}.`);
}

async function judged(until: number, first: number, keep: Keep): Promise<void> {
  let seed = first;
  while (Date.now() < until) {
    await round('tests/judge/judge.test.ts', { KERBE_JUDGED: String(JUDGED), KERBE_SEED: String(seed) });
    await round('tests/judge/invariance.test.ts', { KERBE_COMPARED: String(COMPARED), KERBE_SEED: String(seed) });
    keep((seed += JUDGED));
  }
  console.log(`${seed - first} drawings of each kind of cut held; the next soak goes on at seed ${seed}.`);
}

async function brokenOff(until: number, seed: number, keep: Keep): Promise<void> {
  let rounds = 0;
  while (Date.now() < until) {
    const own = { KERBE_SEED: String(seed) };
    await round('machine/src/runner/moments.test.ts', { KERBE_MOMENTS: String(ROUND.moments), ...own });
    await round('machine/src/runner/lost-arcs.test.ts', { KERBE_ARCS: String(ROUND.arcs), ...own });
    await round('machine/src/runner/lost-count.test.ts', { KERBE_LINKS: String(ROUND.links), ...own });
    await round('machine/src/runner/each-moment.test.ts', { KERBE_EACH: String(ROUND.each), ...own });
    await round('machine/src/runner/each-loss.test.ts', {
      KERBE_EACH: String(ROUND.each),
      ...(rounds === 0 && { KERBE_LONG: String(LONG) }),
      ...own,
    });
    await round('machine/src/runner/table.test.ts', { KERBE_WALKS: String(ROUND.walks), ...own });
    await round('tests/faults/kills.test.ts', { KERBE_KILLS: String(ROUND.kills), ...own });
    await round('tests/faults/saves.test.ts', { KERBE_KILLS: String(ROUND.saves), ...own });
    await round('tests/start-and-stop.test.ts', {
      KERBE_MOMENTS: STARTS.moments,
      KERBE_ENDS_WITHIN: String(STARTS.within),
    });
    await round('tests/faults/stalls.test.ts', own);
    if (rounds === 0) await round('machine/src/runner/piece.test.ts', { KERBE_PIECE: 'all' });
    rounds++;
    console.log(`seeds ${seed} to ${seed + ROUND.moments - 1}: ${counted(1)} and the stalls held`);
    seed += ROUND.moments;
    keep(seed);
  }
  console.log(`${counted(rounds)} held; the next soak goes on at seed ${seed}.`);
}

/** What so many rounds try. */
function counted(rounds: number): string {
  const { moments, arcs, links, each, walks, kills, saves } = ROUND;
  const n = (of: number) => String(rounds * of);
  return `${n(moments)} moments, ${n(arcs)} lost arcs, ${n(links)} lost links and counts in four ways at each machine, ${n(each)} of each single moment, ${n(walks)} walks, ${n(kills)} kills and ${n(saves)} amid saves`;
}

const parsed = (args: string[]) => {
  const [text, flag] = [{ type: 'string' }, { type: 'boolean' }] as const;
  return parseArgs({
    args,
    options: { minutes: text, count: text, seed: text, mutants: text, judge: flag, fuzz: flag },
  }).values;
};

function read(file: string): z.infer<typeof Kept> {
  const parsed = existsSync(file) ? Kept.safeParse(JSON.parse(readFileSync(file, 'utf8'))) : undefined;
  return parsed?.success ? parsed.data : Kept.parse({});
}

/** Runs a test by itself and passes on what it counts. @throws where it fails, with how to run it again. */
async function round(test: string, env: Record<string, string>): Promise<void> {
  const child = spawn(`${ROOT}/node_modules/.bin/vitest`, ['run', test, '--silent=false'], {
    cwd: ROOT,
    env: { ...process.env, ...env, NO_COLOR: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (text) => (said += text));
  const status = await new Promise((resolve) => child.on('close', resolve));
  const lines = said.split('\n');
  for (const line of lines.filter((l) => /^\d[\d,]* (drawings|job|requests|programs)|^most memory|judged and/.test(l)))
    console.log(`  ${line}`);
  if (status === 0) return;
  const why = lines.filter((line) => /AssertionError|Error:|Counterexample|seed|again:/.test(line)).slice(0, 12);
  const again = Object.entries(env).map(([name, value]) => `${name}=${value}`);
  throw new Error(`A round failed. Again with: ${again.join(' ')} npx vitest run ${test}\n${why.join('\n')}`);
}
