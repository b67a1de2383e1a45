import { z } from 'zod';
import type { OpenTransport, Transport } from './transport.ts';

/** Why a link did not come about or ended; `closed` is the only one that was asked for. */
export type LinkFault = 'unreachable' | 'no-answer' | 'foreign' | 'taken' | 'broken' | 'silent' | 'closed';

export const LINK_FAULTS: Record<LinkFault, string> = {
  unreachable: 'The machine cannot be reached; check that it is switched on and its cable is in, then connect again.',
  'no-answer': 'The machine does not answer; check that it is switched on and its cable is in, then connect again.',
  foreign: 'What answers is not a machine Kerbe knows; check the bench’s settings.',
  taken: 'Another program is linked to this machine already; close it there, then connect again.',
  broken: 'The link to the machine broke; go and look at it, check its cable, then connect again.',
  silent: 'The machine has fallen silent; go and look at it, check its cable, then connect again.',
  closed: 'The link was closed.',
};

/** The link is gone. */
export class LinkLost extends Error {
  override name = 'LinkLost';
  constructor(readonly fault: LinkFault) {
    super(LINK_FAULTS[fault]);
  }
}

/** The machine stopped by itself or refused a line; the message is its own sentence. */
export class MachineStopped extends Error {
  override name = 'MachineStopped';
}

export interface Coordinates {
  x: number;
  y: number;
  z: number;
}

const PlaceSchema = z.object({ x: z.number(), y: z.number(), z: z.number() });

/** What every message of the protocol may hold, whatever kind of machine sends it; `state` is the kind's own. */
export const messageOf = <S extends z.ZodType<{ done: number }>>(state: S) =>
  z.object({
    hello: z.string().optional(),
    state: state.optional(),
    /** Answer to `:echo N`, sent together with a fresh state. */
    echo: z.number().optional(),
    /** The last line whose every move is made, counted from the link's first. */
    done: z.number().optional(),
    refused: z.number().optional(),
    why: z.string().optional(),
    /** Where a probe move touched; null where it did not. */
    probe: PlaceSchema.nullable().optional(),
    alarm: z.string().optional(),
    error: z.string().optional(),
  });
export type WireMessage<S extends { done: number }> = z.infer<ReturnType<typeof messageOf<z.ZodType<S>>>>;

/** Lines that may be on their way to the machine at once: enough to look far ahead, few enough to stop soon. */
const WINDOW = 2000;
const ANSWER_WITHIN = 4000;
/** The machine tells its state ten times a second; after this long without a word, ms, the link counts as lost. */
const SILENT_FOR = 3000;
/** A word to the machine at least this often, ms: it holds by itself when it hears nothing for two seconds. */
const WORD_EVERY = 400;

/**
 * The wire protocol: RS-274 lines counted from 1 with a window, control words behind a colon, and answers in JSON, an
 * object a line. Every call that waits takes an abort signal and ends with its reason when that fires.
 */
export class Wire<S extends { done: number }> {
  state?: S;
  /** Lines sent, and the last one finished, counted from this link's first. */
  sent = 0;
  done = 0;
  private asked = 0;
  private answered = 0;
  private probe?: Coordinates | null;
  private problem?: string;
  private fault?: LinkFault;
  private transport?: Transport;
  private heardAt = performance.now();
  private readonly waiters = new Set<() => void>();
  private timers: NodeJS.Timeout[] = [];

  private constructor(
    private readonly read: (value: unknown) => WireMessage<S>,
    private readonly heard: (message: WireMessage<S>, wire: Wire<S>) => void,
    private readonly gone: (fault: LinkFault, wire: Wire<S>) => void,
  ) {}

  /**
   * @param heard told every message. @param gone told once, when the link has ended, whyever.
   * @throws {LinkLost} where no machine answers within four seconds; the signal's reason when it fires.
   */
  static async open<S extends { done: number }>(
    open: OpenTransport,
    read: (value: unknown) => WireMessage<S>,
    heard: (message: WireMessage<S>, wire: Wire<S>) => void,
    gone: (fault: LinkFault, wire: Wire<S>) => void,
    signal: AbortSignal,
  ): Promise<Wire<S>> {
    const wire = new Wire<S>(read, heard, (fault, own) => live && gone(fault, own));
    let live = false;
    const late = setTimeout(() => wire.close('no-answer'), ANSWER_WITHIN);
    try {
      wire.transport = await open(
        { line: (text) => wire.line(text), closed: () => wire.close(live ? 'broken' : 'unreachable') },
        signal,
      ).catch(() => {
        signal.throwIfAborted();
        throw new LinkLost(wire.fault ?? 'unreachable');
      });
      wire.control('state 100');
      await wire.until(() => wire.state !== undefined, signal);
      live = true;
      wire.keep();
      return wire;
    } catch (error) {
      wire.close('closed');
      throw error;
    } finally {
      clearTimeout(late);
    }
  }

  private keep(): void {
    this.heardAt = performance.now();
    let watched = this.heardAt;
    this.timers = [
      setInterval(() => {
        const now = performance.now();
        // Whoever was asleep himself cannot say that the machine was silent.
        if (now - watched > SILENT_FOR / 2) this.heardAt = now;
        watched = now;
        if (now - this.heardAt > SILENT_FOR) this.close('silent');
      }, SILENT_FOR / 4),
      setInterval(() => this.control(`echo ${this.asked}`), WORD_EVERY),
    ];
  }

  private line(text: string): void {
    if (this.fault) return;
    let message: WireMessage<S>;
    try {
      message = this.read(JSON.parse(text));
    } catch {
      return this.close('foreign');
    }
    if (!this.state && message.error && !message.hello) return this.close('taken');
    this.heardAt = performance.now();
    if (message.state) {
      this.state = message.state;
      this.done = Math.max(this.done, message.state.done);
    }
    if (message.echo !== undefined) this.answered = Math.max(this.answered, message.echo);
    if (message.done !== undefined) this.done = Math.max(this.done, message.done);
    if (message.probe !== undefined) this.probe = message.probe;
    if (message.alarm) this.problem ??= message.alarm;
    if (message.refused !== undefined) this.problem ??= message.why ?? 'it refused a line';
    this.heard(message, this);
    this.wake();
  }

  private wake(): void {
    for (const waiter of [...this.waiters]) waiter();
  }

  /** Ends the link; whoever waits is told why. */
  close(fault: LinkFault = 'closed'): void {
    if (this.fault) return;
    this.fault = fault;
    this.timers.forEach(clearInterval);
    this.transport?.close();
    this.wake();
    this.gone(fault, this);
  }

  get isClosed(): LinkFault | undefined {
    return this.fault;
  }

  /** A control word, obeyed at once. */
  control(text: string): void {
    if (!this.fault) this.transport?.send(`:${text}`);
  }

  /** Asks for an answer to all said so far; `since` tells whether it has come. */
  mark(): number {
    const mark = ++this.asked;
    this.control(`echo ${mark}`);
    return mark;
  }

  since(mark: number): boolean {
    return this.answered >= mark;
  }

  /** Clears an alarm at the machine, as its operator has asked. */
  clear(): void {
    this.forget();
    this.control('clear');
  }

  /** Forgets an alarm that is over. */
  forget(): void {
    this.problem = undefined;
  }

  /** Sends one line as soon as the window has room; resolves when it is sent. */
  async send(line: string, signal: AbortSignal): Promise<void> {
    if (this.sent - this.done >= WINDOW) await this.until(() => this.sent - this.done < WINDOW, signal);
    signal.throwIfAborted();
    this.check();
    this.sent++;
    this.transport!.send(line);
  }

  /** Waits for a state that the machine sends after all that was said to it so far. */
  async fresh(signal: AbortSignal): Promise<S> {
    const mark = this.mark();
    await this.until(() => this.since(mark), signal);
    return this.state!;
  }

  /** Sends lines and waits until all their moves are made. */
  async run(signal: AbortSignal, ...lines: string[]): Promise<void> {
    for (const line of lines) await this.send(line, signal);
    const target = this.sent;
    await this.until(() => this.done >= target, signal);
  }

  /** Sends a probe move and returns where it touched, machine coordinates. */
  async probeMove(line: string, signal: AbortSignal): Promise<Coordinates> {
    this.probe = undefined;
    await this.run(signal, line);
    await this.until(() => this.probe !== undefined, signal);
    if (!this.probe) throw new MachineStopped('The probe move ended without a touch; check the clip and the plate.');
    return this.probe;
  }

  /**
   * Waits for a condition on what the machine says.
   * @throws {MachineStopped} on an alarm; {@link LinkLost} when the link has ended; the signal's reason when it fires.
   */
  until(condition: () => boolean, signal: AbortSignal): Promise<void> {
    return new Promise((resolve, reject) => {
      const end = () => {
        this.waiters.delete(look);
        signal.removeEventListener('abort', look);
      };
      const look = () => {
        try {
          signal.throwIfAborted();
          this.check();
          if (!condition()) return;
          end();
          resolve();
        } catch (error) {
          end();
          reject(error as Error);
        }
      };
      this.waiters.add(look);
      signal.addEventListener('abort', look);
      look();
    });
  }

  private check(): void {
    if (this.fault) throw new LinkLost(this.fault);
    if (this.problem) throw new MachineStopped(`The machine has stopped: ${this.problem}.`);
  }
}
