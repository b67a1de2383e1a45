import type { ServerResponse } from 'node:http';

/** A page that has read nothing for this long, ms, is gone. */
const GONE_AFTER = 30_000;

/**
 * Server-sent events of a state to one reader. Who reads slowly misses what was overtaken and gets the newest: no more
 * than one event ever waits for him.
 */
export class EventStream {
  private full = false;
  private behind?: string;
  private timer?: NodeJS.Timeout;

  constructor(private readonly response: ServerResponse) {
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    response.on('drain', () => this.drained());
    response.on('close', () => clearTimeout(this.timer));
  }

  tell(data: string): void {
    if (this.full) {
      this.behind = data;
      return;
    }
    this.full = !this.response.write(`data: ${data}\n\n`);
    if (this.full) this.timer = setTimeout(() => this.response.destroy(), GONE_AFTER);
  }

  private drained(): void {
    clearTimeout(this.timer);
    this.full = false;
    const { behind } = this;
    this.behind = undefined;
    if (behind !== undefined) this.tell(behind);
  }
}
