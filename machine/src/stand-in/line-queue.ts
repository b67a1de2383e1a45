import type { Order } from './reader.ts';

const MOST_PENDING = 20_000;

/** Lines that a machine was sent and has not read, and what of those it has read is still to be done. */
export class LineQueue {
  private pending: { line: number; text: string }[] = [];
  /** Orders that wait for the axes to arrive. */
  waiting: Order[] = [];
  /** Lines taken, and the last one read, counted from the link's first. */
  private taken = 0;
  read = 0;

  /** Counts from 1 again. */
  restart(): void {
    this.drop();
    this.taken = this.read = 0;
  }

  /** Forgets what waits; lines that were not read count as read. */
  drop(): void {
    this.pending = [];
    this.waiting = [];
    this.read = this.taken;
  }

  /** The number of the next line, which counts whether it is taken or refused. */
  number(): number {
    return ++this.taken;
  }

  get full(): boolean {
    return this.pending.length >= MOST_PENDING;
  }

  add(line: number, text: string): void {
    this.pending.push({ line, text });
  }

  /** The line to be read next. */
  get next(): { line: number; text: string } | undefined {
    return this.pending[0];
  }

  /** The next line was read. */
  took(): void {
    this.read = this.pending.shift()!.line;
  }

  get unread(): boolean {
    return this.pending.length > 0;
  }

  get empty(): boolean {
    return this.pending.length === 0 && this.waiting.length === 0;
  }
}
