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

/** What is wrong between the lines that were sent and those that the machine says it has made. */
export type CountFault = 'beyond' | 'backwards' | 'missing';

export const COUNT_FAULTS: Record<CountFault, string> = {
  beyond:
    'The machine says that it has made more lines than it was sent on this link, so nobody knows which line it is at. It is held. Look at the tool, the work and what is on; then press Stop. Zero has to be set again, and the run cannot be taken up at a line.',
  backwards:
    'The machine counts its lines backwards, as if it had been started anew, so nobody knows which line it is at. It is held. Look at the tool, the work and what is on; then press Stop. Zero has to be set again, and the run cannot be taken up at a line.',
  missing:
    'The machine stands idle although it has not made all the lines it was sent: one was lost on the way, and a move may be missing in the work. It is held. Look at the work and the cable; then press Stop. Zero has to be set again, and the run cannot be taken up at a line.',
};

/** Nobody knows which line the machine is at. */
export class CountLost extends Error {
  override name = 'CountLost';
  constructor(readonly fault: CountFault) {
    super(COUNT_FAULTS[fault]);
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

/** What a link has to know of every machine's state. */
export interface Counted {
  word: string;
  /** The last line whose every move is made, counted from the link's first. */
  done: number;
  held?: unknown;
}

/** What every message of the protocol may hold, whatever kind of machine sends it; `state` is the kind's own. */
export const messageOf = <S extends z.ZodType<Counted>>(state: S) =>
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
export type WireMessage<S extends Counted> = z.infer<ReturnType<typeof messageOf<z.ZodType<S>>>>;

/** Lines that may be on their way to the machine at once: enough to look far ahead, few enough to stop soon. */
const WINDOW = 2000;
const ANSWER_WITHIN = 4000;
/** The machine tells its state ten times a second; after this long without a word, ms, the link counts as lost. */
const SILENT_FOR = 3000;
/** A word to the machine at least this often, ms: it holds by itself when it hears nothing for two seconds. */
const WORD_EVERY = 300;
/** Words of a machine that does not move. */
export const RESTING: readonly string[] = ['idle', 'unhomed', 'waiting'];
/** Lines after which a machine may stand without being idle for long: a dwell, a tool that starts, a wait for someone. */
const WAITS = /G0*4(?!\d|\.)|M0*([0-9]|60)(?!\d)/i;

/**
 * The wire protocol: RS-274 lines counted from 1 with a window, control words behind a colon, and answers in JSON, an
 * object a line. Every call that waits takes an abort signal and ends with its reason when that fires.
 */
export class Wire<S extends Counted> {
  state?: S;
  /** Lines sent, and the last one finished, counted from this link's first. */
  sent = 0;
  done = 0;
  private asked = 0;
  private answered = 0;
  private probe?: Coordinates | null;
  private problem?: string;
  private miscounted?: CountFault;
  private uncounted = false;
  /** Lines up to here are made, or given up by a stop: nothing of them is waited for. */
  private settled = 0;
  /** Texts of the lines that are on their way or being made, the first of them the one after `done`. */
  private texts: string[] = [];
  /** What was sent when the machine was last asked for an answer by the clock, and what it seemed to lack before. */
  private asking = { mark: 0, sent: 0 };
  private lacking = -1;
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
  static async open<S extends Counted>(
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
      // Whatever it counts, it is linked: so it can be held and stopped.
      await wire.until(() => wire.state !== undefined, signal, true);
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
      setInterval(() => {
        if (this.since(this.asking.mark)) {
          this.look();
          this.asking = { mark: this.mark(), sent: this.sent };
        } else this.control(`echo ${this.asked}`);
      }, WORD_EVERY),
    ];
  }

  /** The machine has answered to all that was sent before the last question: does it lack a line of that? */
  private look(): void {
    const { done, state } = this;
    const missing = this.asking.sent - Math.max(done, this.settled);
    const [next] = this.texts;
    const idle =
      state?.word === 'idle' || state?.word === 'unhomed' ? missing > 0 : state?.word === 'waiting' && missing > 1;
    const waits = next !== undefined && WAITS.test(next) && state?.word !== 'waiting';
    if (!idle || waits || state?.held) this.lacking = -1;
    else if (this.lacking === done) this.miscount('missing');
    else this.lacking = done;
  }

  /** Takes what the machine says it has made. */
  private count(done: number): void {
    if (this.uncounted) return;
    if (done > this.sent) return this.miscount('beyond');
    if (done < this.done) return this.miscount('backwards');
    this.texts.splice(0, done - this.done);
    this.done = done;
  }

  private miscount(fault: CountFault): void {
    if (this.miscounted) return;
    this.miscounted = fault;
    this.control('hold');
  }

  /** Why nobody knows which line the machine is at; nothing where it counts as it should. */
  get countFault(): CountFault | undefined {
    return this.miscounted;
  }

  /** From here on its count is not asked any more: lines count as made when the machine rests again. */
  ignoreCount(): void {
    this.uncounted = true;
  }

  /** What was sent by now is made or given up: nothing of it is waited for any more. */
  giveUp(): void {
    this.settled = this.sent;
    this.lacking = -1;
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
      this.count(message.state.done);
    }
    if (message.echo !== undefined) this.answered = Math.max(this.answered, message.echo);
    if (message.done !== undefined) this.count(message.done);
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

  /** Forgets an alarm that is over, and the lines that it ended. */
  forget(): void {
    this.problem = undefined;
    this.giveUp();
  }

  /** Sends one line as soon as the window has room; resolves when it is sent. */
  async send(line: string, signal: AbortSignal): Promise<void> {
    const full = () => !this.uncounted && this.sent - Math.max(this.done, this.settled) >= WINDOW;
    if (full()) await this.until(() => !full(), signal);
    signal.throwIfAborted();
    this.check();
    this.sent++;
    this.texts.push(line);
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
    await this.made(signal);
  }

  /** Waits until all moves of all lines sent so far are made. */
  async made(signal: AbortSignal): Promise<void> {
    const target = this.sent;
    if (this.uncounted) await this.rests(signal);
    else await this.until(() => this.done >= target, signal);
  }

  /** Waits until it has answered to all said so far and rests, whatever it counts and whatever it complains of. */
  async rests(signal: AbortSignal, or: () => boolean = () => false): Promise<void> {
    const mark = this.mark();
    await this.until(() => or() || (this.since(mark) && RESTING.includes(this.state!.word)), signal, true);
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
   * @param whatever it complains of, and however it counts: only a link that ends is told.
   * @throws {MachineStopped} on an alarm; {@link CountLost} where its count of lines cannot be right; {@link LinkLost} when
   * the link has ended; the signal's reason when it fires.
   */
  until(condition: () => boolean, signal: AbortSignal, whatever = false): Promise<void> {
    return new Promise((resolve, reject) => {
      const end = () => {
        this.waiters.delete(look);
        signal.removeEventListener('abort', look);
      };
      const look = () => {
        try {
          signal.throwIfAborted();
          this.check(whatever);
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

  private check(whatever = false): void {
    if (this.fault) throw new LinkLost(this.fault);
    if (whatever) return;
    if (this.miscounted && !this.uncounted) throw new CountLost(this.miscounted);
    if (this.problem) throw new MachineStopped(`The machine has stopped: ${this.problem}.`);
  }
}
