import { createHash } from 'node:crypto';
import { appendFileSync, readFileSync, writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import { type Checker, type CheckResult, CheckStatus } from '@stryker-mutator/api/check';
import type { Mutant, MutantResult, StrykerOptions } from '@stryker-mutator/api/core';
import { commonTokens, declareClassPlugin, PluginKind, tokens } from '@stryker-mutator/api/plugin';
import type { Reporter } from '@stryker-mutator/api/report';
import { readTried, type Tried } from './tried.ts';

/** What Stryker is told for its plugins here, as `kerbe` among its options. */
export interface SampleOptions {
  seed: number;
  count: number;
  /** Record of what was tried, a line each; the sample of this run stands beside it. */
  record: string;
}

type Sampled = Omit<Tried, 'status' | 'by'>;
const optionsOf = (options: StrykerOptions) => options.kerbe as SampleOptions;
const sampleFile = (record: string) => record.replace(/\.jsonl$/, '.sample.json');

/** Lets those mutants pass that are of the sample and were not tried before; once all were, those that nobody noticed. */
class SampleChecker implements Checker {
  static inject = tokens(commonTokens.options);
  private readonly wanted = new Set<string>();
  constructor(private readonly options: StrykerOptions) {}

  async init(): Promise<void> {}

  async group(mutants: Mutant[]): Promise<string[][]> {
    if (mutants.length === 0) return [];
    const { seed, count, record } = optionsOf(this.options);
    const keyed = keysOf(mutants);
    const rank = (key: string) => createHash('sha256').update(`${seed} ${key}`).digest('hex');
    const sample = [...keyed]
      .map(([id, one]) => ({ id, one, rank: rank(one.key) }))
      .sort((a, b) => (a.rank < b.rank ? -1 : 1))
      .slice(0, count);
    const tried = readTried(record);
    const fresh = sample.filter(({ one }) => !tried.has(one.key));
    const open = sample.filter(({ one }) => ['Survived', 'NoCoverage'].includes(tried.get(one.key)?.status ?? ''));
    for (const { id } of fresh.length ? fresh : open) this.wanted.add(id);
    writeFileSync(sampleFile(record), JSON.stringify(Object.fromEntries(sample.map(({ id, one }) => [id, one]))));
    return [mutants.map(({ id }) => id)];
  }

  async check(mutants: Mutant[]): Promise<Record<string, CheckResult>> {
    return Object.fromEntries(
      mutants.map(({ id }): [string, CheckResult] => [
        id,
        this.wanted.has(id)
          ? { status: CheckStatus.Passed }
          : { status: CheckStatus.CompileError, reason: 'not wanted' },
      ]),
    );
  }
}

/** Writes each mutant down as soon as it was tried, so that a run that is broken off goes on where it was. */
class RecordReporter implements Reporter {
  static inject = tokens(commonTokens.options);
  private sample: Record<string, Sampled> | undefined;
  constructor(private readonly options: StrykerOptions) {}

  onMutantTested({ id, status, killedBy }: Readonly<MutantResult>): void {
    if (status === 'CompileError' || status === 'Ignored') return;
    const { record } = optionsOf(this.options);
    this.sample ??= JSON.parse(readFileSync(sampleFile(record), 'utf8')) as Record<string, Sampled>;
    const one = this.sample[id];
    if (!one) return;
    appendFileSync(record, `${JSON.stringify({ ...one, status, by: killedBy?.[0] })}\n`);
    console.log(`${one.place} ${status}`);
  }
}

export const strykerPlugins = [
  declareClassPlugin(PluginKind.Checker, 'kerbe-sample', SampleChecker),
  declareClassPlugin(PluginKind.Reporter, 'kerbe-record', RecordReporter),
];

/** What mutants are known by, which stays when lines move. */
function keysOf(mutants: readonly Mutant[]): Map<string, Sampled> {
  const lines = new Map<string, string[]>();
  const before = new Map<string, number>();
  return new Map(
    mutants.map((mutant): [string, Sampled] => {
      const { fileName, location, mutatorName, replacement } = mutant;
      if (!lines.has(fileName)) lines.set(fileName, readFileSync(fileName, 'utf8').split('\n'));
      const text = lines.get(fileName)!.slice(location.start.line, location.end.line + 1);
      text[text.length - 1] = text.at(-1)!.slice(0, location.end.column);
      text[0] = text[0].slice(location.start.column);
      const file = relative(process.cwd(), fileName);
      const like = [file, mutatorName, text.join('\n').replace(/\s+/g, ' '), replacement.replace(/\s+/g, ' ')];
      const nth = before.get(like.join(' ')) ?? 0;
      before.set(like.join(' '), nth + 1);
      const key = [
        file,
        createHash('sha256')
          .update([...like, nth].join(' '))
          .digest('hex')
          .slice(0, 12),
      ].join(' ');
      const place = `${file}:${location.start.line + 1}`;
      return [mutant.id, { key, place, text: like[2].slice(0, 120), replacement: like[3].slice(0, 120) }];
    }),
  );
}
