import { appendFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { z } from 'zod';

const RecordSchema = z.object({
  id: z.string(),
  phase: z.enum(['begun', 'done', 'stopped', 'failed', 'lost']),
  why: z.string().optional(),
  /** At the program, and all else: held, bit changes, questions. */
  minutes: z.number(),
  waited: z.number().default(0),
  /** The last line whose moves were all made. */
  line: z.number(),
  at: z.string(),
});
export type JournalRecord = z.infer<typeof RecordSchema>;

/**
 * The runner's own record of runs, a line of JSON for every beginning and end, so that neither a restart of the web
 * server nor one of the runner loses how a run ended.
 */
export class Journal {
  private readonly records: JournalRecord[] = [];

  constructor(private readonly file: string) {
    mkdirSync(dirname(file), { recursive: true });
    if (!existsSync(file)) return;
    for (const line of readFileSync(file, 'utf8').split('\n')) {
      if (!line) continue;
      try {
        this.records.push(RecordSchema.parse(JSON.parse(line)));
      } catch {
        // A half-written last line after a power cut; what it said is covered by the check below.
      }
    }
    const ended = new Set(this.records.filter((r) => r.phase !== 'begun').map((r) => r.id));
    for (const { id, phase } of [...this.records])
      if (phase === 'begun' && !ended.has(id))
        this.write({
          id,
          phase: 'failed',
          why: 'The runner was restarted during this run.',
          minutes: 0,
          waited: 0,
          line: 0,
          at: new Date().toISOString(),
        });
  }

  write(record: JournalRecord): void {
    this.records.push(record);
    appendFileSync(this.file, JSON.stringify(record) + '\n');
  }

  /** How runs ended, from record number `from` on. */
  ends(from: number): { next: number; ends: JournalRecord[] } {
    return { next: this.records.length, ends: this.records.slice(from).filter((r) => r.phase !== 'begun') };
  }
}
