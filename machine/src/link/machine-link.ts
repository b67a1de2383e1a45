import { connect, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { type RouterMessage, RouterMessageSchema, type RouterState } from './messages.ts';

export class MachineError extends Error {
  override name = 'MachineError';
}

export interface Coordinates {
  x: number;
  y: number;
  z: number;
}

/** Lines that may be on their way to the machine at once: enough to look far ahead, few enough to stop soon. */
const WINDOW = 2000;

const ANSWER_WITHIN = 4000;
/** The machine tells its state ten times a second; after this long without a word, ms, the link counts as lost. */
const SILENT_FOR = 3000;

/** A link to a controller over TCP: sends RS-274 lines with a window, and waits for what comes back. */
export class MachineLink {
  state?: RouterState;
  sent = 0;
  done = 0;
  private asked = 0;
  private answered = 0;
  private probe?: Coordinates | null;
  private problem?: string;
  private readonly waiters = new Set<() => void>();
  private closed?: string;
  private heardAt = performance.now();
  private readonly watch: NodeJS.Timeout;

  private constructor(
    private readonly socket: Socket,
    private readonly changed: (message: RouterMessage) => void,
  ) {
    let watched = performance.now();
    this.watch = setInterval(() => {
      const now = performance.now();
      // Whoever was asleep himself cannot say that the machine was silent.
      if (now - watched > SILENT_FOR / 2) this.heardAt = now;
      watched = now;
      if (this.state && now - this.heardAt > SILENT_FOR)
        this.close('The machine has fallen silent; go and look at it, check its cable, then connect again.');
    }, SILENT_FOR / 4).unref();
  }

  /**
   * @param changed told every message.
   * @throws {MachineError} where nothing answers within four seconds.
   */
  static open(port: number, changed: (message: RouterMessage) => void): Promise<MachineLink> {
    return new Promise((resolve, reject) => {
      const socket = connect({ port, host: '127.0.0.1' });
      socket.setNoDelay(true);
      const link = new MachineLink(socket, changed);
      const fail = (why: string) => {
        link.close(why);
        reject(new MachineError(why));
      };
      const timer = setTimeout(
        () =>
          fail('The machine does not answer; check that it is switched on and its cable is in, then connect again.'),
        ANSWER_WITHIN,
      );
      socket.on('error', () => {
        clearTimeout(timer);
        if (link.state) link.close('The link to the machine broke; check the machine, then connect again.');
        else
          fail('The machine cannot be reached; check that it is switched on and its cable is in, then connect again.');
      });
      socket.on('close', () => link.close('The link to the machine broke; check the machine, then connect again.'));
      const lines = createInterface({ input: socket });
      // A broken socket is told by its own events; the reader only passes them on.
      lines.on('error', () => {});
      lines.on('line', (line) => {
        let message: RouterMessage;
        try {
          message = RouterMessageSchema.parse(JSON.parse(line));
        } catch {
          return fail('What answers is not a machine Kerbe knows; check the bench’s settings.');
        }
        if (message.error && !message.hello && link.sent === 0 && !link.state) {
          clearTimeout(timer);
          return fail(message.error);
        }
        link.take(message);
        if (message.state) {
          clearTimeout(timer);
          resolve(link);
        }
      });
      socket.on('connect', () => socket.write(':state 100\n'));
    });
  }

  private take(message: RouterMessage): void {
    this.heardAt = performance.now();
    if (message.state) {
      this.state = message.state;
      this.done = Math.max(this.done, message.state.done);
    }
    if (message.echo !== undefined) this.answered = message.echo;
    if (message.done !== undefined) this.done = Math.max(this.done, message.done);
    if (message.probe !== undefined) this.probe = message.probe;
    if (message.alarm) this.problem = message.alarm;
    if (message.refused !== undefined) this.problem ??= message.why;
    this.changed(message);
    this.wake();
  }

  private wake(): void {
    for (const waiter of [...this.waiters]) waiter();
  }

  /** Ends the link; whoever waits is told why. */
  close(why = 'The link was closed.'): void {
    this.closed ??= why;
    clearInterval(this.watch);
    this.socket.destroy();
    this.wake();
  }

  get isClosed(): string | undefined {
    return this.closed;
  }

  control(text: string): void {
    if (!this.closed) this.socket.write(`:${text}\n`);
  }

  /** Forgets an alarm that has been dealt with. */
  clear(): void {
    this.problem = undefined;
    this.control('clear');
  }

  /** Sends lines as the machine works them off; resolves when the last is sent. `aborted` is asked before every line. */
  async send(lines: readonly string[], aborted: () => boolean = () => false): Promise<void> {
    for (const line of lines) {
      if (this.sent - this.done >= WINDOW) await this.until(() => this.sent - this.done < WINDOW || aborted());
      if (aborted()) return;
      this.check();
      this.sent++;
      this.socket.write(line + '\n');
    }
  }

  /** Waits for a state that the machine sends after all that was said to it so far. */
  async fresh(): Promise<RouterState> {
    const mark = ++this.asked;
    this.control(`echo ${mark}`);
    await this.until(() => this.answered >= mark);
    return this.state!;
  }

  /** Sends lines and waits until all their moves are made. */
  async run(...lines: string[]): Promise<void> {
    await this.send(lines);
    const target = this.sent;
    await this.until(() => this.done >= target);
  }

  /** Sends a probe move and returns where it touched, machine coordinates. */
  async probeMove(line: string): Promise<Coordinates> {
    this.probe = undefined;
    await this.run(line);
    await this.until(() => this.probe !== undefined);
    if (!this.probe) throw new MachineError('The probe move ended without a touch; check the clip and the plate.');
    return this.probe;
  }

  /** Waits for a condition on messages. @throws {MachineError} on an alarm or a broken link. */
  until(condition: () => boolean): Promise<void> {
    return new Promise((resolve, reject) => {
      const look = () => {
        try {
          this.check();
          if (!condition()) return;
          this.waiters.delete(look);
          resolve();
        } catch (error) {
          this.waiters.delete(look);
          reject(error);
        }
      };
      this.waiters.add(look);
      look();
    });
  }

  /** Looks again at what is waited for, when something other than a message has changed. */
  nudge(): void {
    this.wake();
  }

  private check(): void {
    if (this.closed) throw new MachineError(this.closed);
    if (this.problem) throw new MachineError(`The machine has stopped: ${this.problem}.`);
  }
}
