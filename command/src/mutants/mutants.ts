import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Stryker } from '@stryker-mutator/core';
import { Misuse } from '../misuse.ts';
import { DATA, ROOT } from '../paths.ts';
import { roomsOf } from './rooms.ts';
import type { SampleOptions } from './stryker-plugins.ts';
import { scoreOf } from './score.ts';
import { readEquivalent, readTried, type Tried } from './tried.ts';

const EQUIVALENT = fileURLToPath(new URL('equivalent.json', import.meta.url));
const PLUGINS = fileURLToPath(new URL('stryker-plugins.ts', import.meta.url));

/**
 * Tries a sample of a room's mutants on the tests and prints how many were noticed, and each that was not. What was tried
 * is kept: a run that is broken off goes on where it was, and one that is whole tries again what nobody noticed.
 * Left out are sentences and what only runs while modules load.
 * @throws {Misuse} where there is no such room.
 */
export async function mutants(room: string, seed: number, count: number): Promise<void> {
  const rooms = roomsOf();
  if (!rooms[room]) throw new Misuse(`There is no room “${room}”; there are ${Object.keys(rooms).join(', ')}.`);
  mkdirSync(`${DATA}/mutants`, { recursive: true });
  const record = `${DATA}/mutants/${room.replace('/', '-')}-${seed}.jsonl`;
  process.chdir(ROOT);
  process.env.KERBE_HOUSE = room.split('/')[0];
  const kerbe: SampleOptions = { seed, count, record };
  await new Stryker({
    mutate: rooms[room],
    mutator: { plugins: null, excludedMutations: ['StringLiteral'] },
    ignoreStatic: true,
    coverageAnalysis: 'perTest',
    testRunner: 'vitest',
    vitest: { configFile: 'command/src/mutants/vitest.mutants.ts', related: true },
    plugins: ['@stryker-mutator/vitest-runner', PLUGINS],
    checkers: ['kerbe-sample'],
    checkerNodeArgs: ['--import', 'tsx'],
    reporters: ['kerbe-record'],
    ignorePatterns: ['/.data', '/web/build', '/web/.svelte-kit', '/docs/screenshots', '/reports'],
    tempDirName: `${DATA}/mutants/sandbox`,
    concurrency: 2,
    timeoutMS: 20_000,
    disableTypeChecks: false,
    allowConsoleColors: false,
    warnings: false,
    logLevel: 'error',
    kerbe,
  } as ConstructorParameters<typeof Stryker>[0]).runMutationTest();
  const sample = JSON.parse(readFileSync(record.replace(/\.jsonl$/, '.sample.json'), 'utf8')) as Record<string, Tried>;
  const tried = existsSync(record) ? readTried(record) : new Map<string, Tried>();
  console.log(
    scoreOf(
      room,
      Object.values(sample).flatMap(({ key }) => tried.get(key) ?? []),
      readEquivalent(EQUIVALENT),
    ),
  );
}
