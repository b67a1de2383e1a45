import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { z } from 'zod';
import type { BitShape } from './zero.ts';

const BookSchema = z.record(z.string(), z.array(z.number()));
/** Lengths kept of each bit. */
const KEPT = 5;

/** Where each bit touched the tool setter the last few times, kept in a file of the bench. */
export class LengthBook {
  private readonly book: Map<string, number[]>;

  /** @param file kept in memory only where it is left out. */
  constructor(private readonly file?: string) {
    this.book = new Map(Object.entries(file ? read(file) : {}));
  }

  /** The last readings of a bit, machine coordinates, mm. */
  of(bit: BitShape): readonly number[] {
    return this.book.get(keyOf(bit)) ?? [];
  }

  add(bit: BitShape, reading: number): void {
    this.book.set(keyOf(bit), [...this.of(bit), reading].slice(-KEPT));
    if (!this.file) return;
    try {
      mkdirSync(dirname(this.file), { recursive: true });
      writeFileSync(`${this.file}.new`, JSON.stringify(Object.fromEntries(this.book)));
      renameSync(`${this.file}.new`, this.file);
    } catch (error) {
      // A length that is not kept is asked for anew another day; it is no reason to end a bit change.
      console.error(JSON.stringify({ level: 'warn', at: 'lengths', message: String(error) }));
    }
  }
}

/** A bit by identity and shape, so that jobs that number their bits alike are not mixed up. */
function keyOf({ id, diameter, angle, tip }: BitShape): string {
  return [id, diameter, angle ?? '-', tip].join(' ');
}

function read(file: string): Record<string, number[]> {
  try {
    return BookSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    return {};
  }
}
