import { createHash } from 'node:crypto';
import type { From } from './commands.ts';
import { programFacts, programPlace, linesOf } from './program-facts.ts';
import type { Timeline } from '@kerbe/core/program/timeline';
import type { ProgramStore } from './program-store.ts';

/** Programs kept in memory, for tests. */
export class KeptPrograms implements ProgramStore {
  readonly kept = new Map<string, { text: string; timeline: Timeline }>();
  private async *bytes(hash: string): AsyncGenerator<Uint8Array> {
    yield new TextEncoder().encode(this.kept.get(hash)!.text);
  }
  keep(text: string, timeline: Timeline = { minutes: new Float64Array(), feeding: new Float64Array() }): string {
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
  timeline = async (hash: string) => this.kept.get(hash)!.timeline;
}

export const OPERATOR: From = { page: 'page-1', name: 'Asa' };
