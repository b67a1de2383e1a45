import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';
import { z } from 'zod';

const RecordSchema = z.object({
  /** Its number, from 0; older journals have none. */
  n: z.number().int().optional(),
  id: z.string(),
  /** The program it runs; older journals do not say. */
  hash: z.string().optional(),
  phase: z.enum(['begun', 'on', 'done', 'stopped', 'failed', 'lost']),
  why: z.string().optional(),
  /** At the program, and all else: held, bit changes, questions. */
  minutes: z.number(),
  /** What was planned of it when it began, with the ways that only the machine knows; older journals do not say. */
  planned: z.number().optional(),
  waited: z.number().default(0),
  /** The last line whose moves were all made. */
  line: z.number(),
  /** Nobody knows whether it was that line. */
  lineUnknown: z.literal(true).optional(),
  /** Where it ended, from zero, mm. */
  stopped: z.object({ x: z.number(), y: z.number() }).optional(),
  at: z.string(),
});
export type JournalRecord = Omit<z.infer<typeof RecordSchema>, 'n'>;
type Kept = JournalRecord & { n: number };

/** Puts text behind a file, so that it is there after a power cut. @throws where the disk is full or cannot be written. */
export type Append = (file: string, text: string) => void;

/** As {@link Append} wants it: written whole, then flushed. */
export const appendFlushed: Append = (file, text) => {
  const handle = openSync(file, 'a', 0o600);
  try {
    const bytes = Buffer.from(text);
    for (let done = 0; done < bytes.length;) done += writeSync(handle, bytes, done);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
};

/**
 * The runner's own record of runs: a line of JSON for every beginning and end, and for how far one has come every few
 * seconds, so that neither a restart of the web server nor one of the runner loses how a run went. A line that was
 * written by half is passed over, and what a full disk refuses is written when there is room again.
 */
export class Journal {
  private readonly records: Kept[] = [];
  private waiting: JournalRecord[] = [];
  /** The file may end in the middle of a line. */
  private torn = false;
  private next = 0;

  /** @throws where the file is there and cannot be read. */
  constructor(
    private readonly file: string,
    private readonly append: Append = appendFlushed,
  ) {
    mkdirSync(dirname(file), { recursive: true });
    if (existsSync(file)) this.read();
    this.endOpenRuns();
  }

  private read(): void {
    const text = readFileSync(this.file, 'utf8');
    this.torn = text !== '' && !text.endsWith('\n');
    for (const line of text.split('\n')) {
      if (!line) continue;
      try {
        const { n, ...record } = RecordSchema.parse(JSON.parse(line));
        this.next = Math.max(this.next, n ?? this.next);
        this.records.push({ n: this.next++, ...record });
      } catch {
        // Written by half: what it would have said is covered by the record before, and by what follows here.
      }
    }
    this.tidy();
  }

  /** How far ended runs once were is not asked for any more. */
  private tidy(): void {
    const ended = this.endedRuns();
    const kept = this.records.filter(({ id, phase }) => phase !== 'on' || !ended.has(id));
    if (kept.length === this.records.length) return;
    try {
      appendFlushed(`${this.file}.new`, kept.map((record) => JSON.stringify(record) + '\n').join(''));
      renameSync(`${this.file}.new`, this.file);
      this.records.splice(0, this.records.length, ...kept);
      this.torn = false;
    } catch {
      // On a full disk it stays as long as it is.
    }
  }

  private endedRuns(): Set<string> {
    return new Set(this.records.filter(({ phase }) => phase !== 'begun' && phase !== 'on').map(({ id }) => id));
  }

  /** Runs that an end of the runner itself broke: they ended at the last line that is known to be made. */
  private endOpenRuns(): void {
    const ended = this.endedRuns();
    const last = new Map(this.records.filter(({ id }) => !ended.has(id)).map((record) => [record.id, record]));
    for (const { id, hash, minutes, planned, waited, line } of last.values())
      this.write({
        id,
        hash,
        phase: 'failed',
        why: 'The bench runner ended during this run, and the machine held by itself; more lines may have been made than are known.',
        minutes,
        planned,
        waited,
        line,
        at: new Date().toISOString(),
      });
  }

  /** Keeps a record, now or when the disk has room. @returns whether it is kept by now. */
  write(record: JournalRecord): boolean {
    // Of how far a run has come only the last is worth waiting with.
    this.waiting = this.waiting.filter(({ id, phase }) => phase !== 'on' || id !== record.id);
    this.waiting.push(record);
    return this.flush();
  }

  /** Tries again to write what waits. @returns whether nothing waits any more. */
  flush(): boolean {
    while (this.waiting.length > 0) {
      const kept = { n: this.next, ...this.waiting[0] };
      try {
        this.append(this.file, `${this.torn ? '\n' : ''}${JSON.stringify(kept)}\n`);
      } catch {
        // Part of the line may be there.
        this.torn = true;
        return false;
      }
      this.torn = false;
      this.next++;
      this.waiting.shift();
      this.records.push(kept);
    }
    return true;
  }

  /** Gives up a record that could not be kept, and what it says with it. */
  forget(id: string): void {
    this.waiting = this.waiting.filter((record) => record.id !== id);
  }

  /** How a run ended; nothing where it has not, or is not known here. */
  endOf(run: string): JournalRecord | undefined {
    return this.records.findLast(({ id, phase }) => id === run && phase !== 'begun' && phase !== 'on');
  }

  /** How runs ended, from record number `from` on; which runs are on or were ever begun; the number of what comes next. */
  ends(from: number): { next: number; begun: string[]; ends: JournalRecord[] } {
    const ended = this.endedRuns();
    // Who has read further than this goes has read another journal.
    if (from > this.next) from = 0;
    return {
      next: this.next,
      begun: [...new Set(this.records.filter(({ id }) => !ended.has(id)).map(({ id }) => id))],
      ends: this.records.filter(
        ({ n, id, phase }) => n >= from && phase !== 'begun' && phase !== 'on' && ended.has(id),
      ),
    };
  }
}
