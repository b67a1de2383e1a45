const LONGEST_LINE = 4096;

/** A simulated machine as its controller has it. */
export interface Simulated {
  /** Someone links, has gone, or has said something. */
  connected(): void;
  disconnected(): void;
  heard(): void;
  /** Takes a line of RS-274, and a control word. */
  block(line: string): void;
  control(command: string, argument: string): void;
  /** Lets time pass: seconds by its own clock, and real ones. */
  advance(seconds: number, real: number): void;
  state(): object;
}

/** A simulated machine's controller as its client meets it: text in, JSON out, an object a line. */
export class Controller<M extends Simulated> {
  readonly machine: M;
  private every = 0;
  private sinceState = 0;
  private rest = '';
  private client?: (text: string) => void;

  /** @param build makes the machine, which tells what it has to say. @param hello what it calls itself. */
  constructor(
    build: (tell: (message: Record<string, unknown>) => void) => M,
    private readonly hello: string,
  ) {
    this.machine = build((message) => this.send(message));
  }

  get busy(): boolean {
    return this.client !== undefined;
  }

  /** A client is linked. @param send takes one line of text. */
  connect(send: (text: string) => void): void {
    this.client = send;
    this.every = 0;
    this.rest = '';
    this.send({ hello: this.hello });
    this.machine.connected();
  }

  disconnect(): void {
    this.client = undefined;
    this.machine.disconnected();
  }

  private send(message: Record<string, unknown>): void {
    this.client?.(JSON.stringify(message));
  }

  /** Text from the client, as it comes. Only whole lines are obeyed: what a broken link cut off is not one. */
  hear(text: string): void {
    this.machine.heard();
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
    const { machine } = this;
    if (!line.startsWith(':')) return machine.block(line);
    const space = line.indexOf(' ');
    const command = space < 0 ? line.slice(1) : line.slice(1, space);
    const argument = space < 0 ? '' : line.slice(space + 1);
    if (command === 'state') {
      this.every = Math.max(0, Number(argument) || 0);
      this.send({ state: machine.state() });
    } else if (command === 'echo') this.send({ echo: Number(argument), state: machine.state() });
    else machine.control(command, argument);
  }

  /** Lets time pass: seconds by the machine's clock, and milliseconds as its client feels them. */
  pass(seconds: number, milliseconds: number): void {
    this.machine.advance(seconds, milliseconds / 1000);
    this.sinceState += milliseconds;
    if (this.every > 0 && this.sinceState >= this.every) {
      this.sinceState = 0;
      this.send({ state: this.machine.state() });
    }
  }
}
