import type { MadeAs } from './made-as.ts';
import { StandInRouter } from './router.ts';

const LONGEST_LINE = 4096;

/** The simulated router's controller as its client meets it: text in, JSON out, an object a line. */
export class Controller {
  readonly router: StandInRouter;
  private every = 0;
  private sinceState = 0;
  private rest = '';
  private client?: (text: string) => void;

  constructor(seed: number, as?: MadeAs) {
    this.router = new StandInRouter((message) => this.send(message), seed, as);
  }

  get busy(): boolean {
    return this.client !== undefined;
  }

  /** A client is linked. @param send takes one line of text. */
  connect(send: (text: string) => void): void {
    this.client = send;
    this.every = 0;
    this.rest = '';
    this.send({ hello: 'stand-in router' });
    this.router.connected();
  }

  disconnect(): void {
    this.client = undefined;
    this.router.disconnected();
  }

  private send(message: Record<string, unknown>): void {
    this.client?.(JSON.stringify(message));
  }

  /** Text from the client, as it comes. Only whole lines are obeyed: what a broken link cut off is not one. */
  hear(text: string): void {
    this.router.heard();
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop()!;
    if (this.rest.length > LONGEST_LINE) {
      this.rest = '';
      this.send({ error: 'A line without an end is not taken.' });
    }
    for (const line of lines) {
      try {
        this.take(line.replace(/\r$/, ''));
      } catch (error) {
        this.send({ error: error instanceof Error ? error.message : String(error) });
      }
    }
  }

  private take(line: string): void {
    const { router } = this;
    if (!line.startsWith(':')) return router.block(line);
    const space = line.indexOf(' ');
    const command = space < 0 ? line.slice(1) : line.slice(1, space);
    const argument = space < 0 ? '' : line.slice(space + 1);
    if (command === 'state') {
      this.every = Math.max(0, Number(argument) || 0);
      this.send({ state: router.state() });
    } else if (command === 'echo') this.send({ echo: Number(argument), state: router.state() });
    else router.control(command, argument);
  }

  /** Lets time pass: seconds by the machine's clock, and milliseconds as its client feels them. */
  pass(seconds: number, milliseconds: number): void {
    this.router.advance(seconds, milliseconds / 1000);
    this.sinceState += milliseconds;
    if (this.every > 0 && this.sinceState >= this.every) {
      this.sinceState = 0;
      this.send({ state: this.router.state() });
    }
  }
}
