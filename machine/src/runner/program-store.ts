import { spawn } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Timeline } from '@kerbe/core/program/timeline';
import { timelineFrom } from '@kerbe/core/program/timeline-bytes';
import { processArguments } from '../process-file.ts';
import type { ProgramWay } from './program-ways.ts';
import { linesOf, type ProgramFacts, type ProgramPlace } from './program-facts.ts';

const READER = new URL('./read-program.ts', import.meta.url);

/** Where the runner finds programs, by their hash. */
export interface ProgramStore {
  facts(hash: string, signal: AbortSignal): Promise<ProgramFacts>;
  /** What holds before a line, counted from 0. */
  place(hash: string, line: number, signal: AbortSignal): Promise<ProgramPlace>;
  /** Lines from one on, counted from 0, as they are asked for. */
  lines(hash: string, from: number): AsyncIterable<string>;
  timeline(hash: string): Promise<Timeline>;
  /** The ways that its times leave out. */
  ways(hash: string, signal: AbortSignal): Promise<ProgramWay[]>;
}

/**
 * Programs in a folder: `HASH.nc`, and beside it `HASH.timeline` (see `timeline-bytes.ts`). They are read as
 * streams, and looked through in a process of their own, so that the longest leaves the runner free to hold.
 */
export class ProgramFolder implements ProgramStore {
  /** The ways of the program that was looked through last. */
  private last?: { hash: string; ways: Promise<ProgramWay[]> };

  constructor(private readonly folder: string) {}

  facts(hash: string, signal: AbortSignal): Promise<ProgramFacts> {
    return this.ask([hash], signal) as Promise<ProgramFacts>;
  }

  place(hash: string, line: number, signal: AbortSignal): Promise<ProgramPlace> {
    return this.ask([hash, String(line)], signal) as Promise<ProgramPlace>;
  }

  async *lines(hash: string, from: number): AsyncIterable<string> {
    let k = 0;
    for await (const line of linesOf(createReadStream(this.path(hash)))) if (k++ >= from) yield line;
  }

  async timeline(hash: string): Promise<Timeline> {
    return timelineFrom(await readFile(this.timelinePath(hash)));
  }

  ways(hash: string, signal: AbortSignal): Promise<ProgramWay[]> {
    if (this.last?.hash === hash) return this.last.ways;
    const ways = this.ask([hash, 'ways', this.timelinePath(hash)], signal) as Promise<ProgramWay[]>;
    this.last = { hash, ways };
    // What could not be found is asked for anew.
    ways.catch(() => (this.last = undefined));
    return ways;
  }

  private timelinePath(hash: string): string {
    return join(this.folder, `${nameOf(hash)}.timeline`);
  }

  private path(hash: string): string {
    return join(this.folder, `${nameOf(hash)}.nc`);
  }

  private ask([hash, ...rest]: string[], signal: AbortSignal): Promise<unknown> {
    return new Promise((resolve, reject) => {
      const child = spawn(process.execPath, [...processArguments(READER), this.path(hash), ...rest], {
        stdio: ['ignore', 'pipe', 'pipe'],
        signal,
      });
      let out = '';
      let errors = '';
      child.stdout.setEncoding('utf8').on('data', (text: string) => (out += text));
      child.stderr.setEncoding('utf8').on('data', (text: string) => (errors += text));
      child.on('error', reject);
      child.on('close', (code) => {
        if (code === 0) resolve(JSON.parse(out));
        else reject(new Error(`The program could not be read: ${errors.slice(0, 400)}`));
      });
    });
  }
}

function nameOf(hash: string): string {
  if (!/^[0-9a-f]{64}$/.test(hash)) throw new RangeError('A program is named by its hash.');
  return hash;
}
