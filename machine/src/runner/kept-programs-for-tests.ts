import { createHash } from 'node:crypto';
import type { From } from './commands.ts';
import { programFacts, programPlace, linesOf } from './program-facts.ts';
import { NO_TIMES, type Timeline } from '@kerbe/core/program/timeline';
import { programWays } from './program-ways.ts';
import type { ProgramStore } from './program-store.ts';

/** Programs kept in memory, for tests. */
export class KeptPrograms implements ProgramStore {
  readonly kept = new Map<string, { text: string; timeline: Timeline }>();
  private async *bytes(hash: string): AsyncGenerator<Uint8Array> {
    yield new TextEncoder().encode(this.kept.get(hash)!.text);
  }
  keep(text: string, timeline: Timeline = NO_TIMES): string {
    const hash = createHash('sha256').update(text).digest('hex');
    this.kept.set(hash, { text, timeline });
    return hash;
  }
  facts = (hash: string) => programFacts(this.bytes(hash));
  place = (hash: string, line: number) => programPlace(this.bytes(hash), line);
  async *lines(hash: string, from: number): AsyncIterable<string> {
    let k = 0;
    for await (const line of linesOf(this.bytes(hash))) if (k++ >= from) yield line;
  }
  ways = (hash: string) => programWays(this.bytes(hash), this.kept.get(hash)!.timeline);
  timeline = async (hash: string) => this.kept.get(hash)!.timeline;
}

export const OPERATOR: From = { page: 'page-1', name: 'Asa' };
