/* eslint max-lines: off -- one simulated machine, whose switches and axes are one state */
import type { Limits } from '@kerbe/core/document/limits';
import type { MachineState, MachineWord } from '../link/machine-state.ts';
import { Axes, type Point } from './axes.ts';
import { NotObeyed } from './block-words.ts';
import { DRIVE_FOR, driven, type HandMove, LONGEST_STEP, stepped } from './by-hand.ts';
import type { Simulated } from './controller.ts';
import { LedBeside, type LedMove } from './led-beside.ts';
import { LineQueue } from './line-queue.ts';
import { mulberry } from './random.ts';
import { beyondReach, withinReach } from './reach.ts';
import { type Order, Reader } from './reader.ts';
import { Watchdog } from './watchdog.ts';

/** What every simulated machine is built with. */
export interface Built {
  travel: Point;
  /** As a bench says them: mm/min, mm/s². */
  limits: Limits;
  /** Its controller can lead the tool beside its way (G41, G42). */
  leads?: boolean;
}

/**
 * A simulated machine: axes, switches and controller, on a clock of its own. What is at its axes' end (a spindle, an arc),
 * and what that meets, its kind says by the members that are abstract here.
 */
export abstract class StandInMachine<H extends { hand: string }, S extends MachineState> implements Simulated {
  readonly axes: Axes;
  readonly reader: Reader;
  /** Seconds since it was switched on, by its own clock. */
  clock = 0;
  homed = false;
  emergency = false;
  alarm?: string;
  private word: 'idle' | 'moving' | 'homing' | 'probing' | 'waiting' | 'jogging' = 'idle';
  protected held?: 'asked' | 'unheard' | 'itself';
  /** Why it holds by itself. */
  private why?: string;
  /** The last line that was made, while what waited behind it is given up and no other has been read since. */
  private given?: number;
  /** Left alone for too long, it has given up what it held. */
  private gaveUp = false;
  private stopping = false;
  private readonly lines = new LineQueue();
  private dwell = 0;
  private reported = 0;
  /** What an earlier link left waiting is forgotten as soon as the axes stand. */
  private forgetting = false;
  protected readonly watchdog = new Watchdog();
  private lifting = false;
  private driveLeft = 0;
  protected readonly random: () => number;
  /** What leads its tool beside the way of a program, where its controller can. */
  protected readonly beside = new LedBeside();

  /** @param tell receives every message for the client. @param at where its axes stand when it is switched on first. */
  constructor(
    protected readonly tell: (message: Record<string, unknown>) => void,
    seed: number,
    private readonly built: Built,
    at: (random: () => number) => Point,
  ) {
    const { speed, acceleration, cornerStep } = built.limits;
    const perSecond = { x: speed.x / 60, y: speed.y / 60, z: speed.z / 60 };
    this.axes = new Axes({ speed: perSecond, acceleration, cornerStep: cornerStep / 60 });
    this.random = mulberry(seed);
    this.axes.position = at(this.random);
    this.reader = new Reader(built.leads);
    this.reader.at = this.axes.position;
  }

  /** Something that can hurt is asked for or on. */
  protected abstract readonly asked: boolean;
  protected abstract readonly live: boolean;
  /** Switches it off, and cuts its power where the emergency stop is pressed or the machine switched off. */
  protected abstract switchOff(cut: boolean): void;
  /** It is held or stopped: what goes out at once, before anything else. */
  protected abstract heldNow(): void;
  /** It is held, and stands. */
  protected stoodHeld(): void {}
  /** Time passes for it. */
  protected abstract passed(seconds: number): void;
  /** Something beside moves that it can be told; whether it has to be waited for. @returns false where it is unknown. */
  protected abstract perform(order: Order): void;
  /** Whether what waits goes on now: an arc that has to stand first keeps it. */
  protected waits(): boolean {
    return false;
  }
  /** Why a probe move cannot begin. */
  protected abstract notProbing(): string | undefined;
  /** What happens on a straight stretch; a returned point is where the axes stop. */
  protected abstract travelled(
    from: Point,
    to: Point,
    rapid: boolean,
    serial: number,
    power: number,
  ): Point | undefined;
  /** A control word of its own. @returns whether it knows it. */
  protected abstract ownControl(command: string, number: number): boolean;
  /** What a hand does besides what hands do at any machine. */
  protected abstract handDoes(hand: H): void;
  /** What it tells besides what any does. */
  protected abstract ownState(): Omit<S, keyof MachineState>;
  /** It has been switched on again. */
  protected abstract restarted(): void;
  /** A speed (S) belongs to the moves that come after it, and nothing waits for it. */
  protected readonly powerInMoves: boolean = false;
  private power = 0;
  /** What is on along the move being made, and where nothing moves, as the program says it. */
  protected get movingPower(): number {
    return this.axes.power;
  }
  protected get restingPower(): number {
    return this.power;
  }
  protected get isHeld(): boolean {
    return this.held !== undefined || this.stopping;
  }
  /** What it calls coming up by itself while it is held. */
  protected readonly liftingWord: MachineWord = 'moving';
  /** What is switched on at it, in a refusal: “the spindle”. */
  protected abstract readonly part: string;

  /** Someone begins to command it. Lines are counted from 1 again; nothing moves or stops by that. */
  connected(): void {
    this.lines.restart();
    this.axes.unnumber();
    this.dwell = 0;
    this.reported = 0;
    if (this.given !== undefined) this.given = 0;
    this.watchdog.linked();
    this.forgetting = true;
    if (this.axes.speed === 0) this.forget();
  }

  /** Whoever commanded it is gone: it holds at once. */
  disconnected(): void {
    this.watchdog.unlinked();
    this.leftAlone();
  }

  /** A word came from whoever commands it. */
  heard(): void {
    this.watchdog.heard();
  }

  private get standing(): boolean {
    return this.word === 'idle' && this.axes.queued === 0 && this.lines.empty;
  }

  private leftAlone(): void {
    if (this.held || this.emergency) return;
    if (this.standing && !this.asked) return;
    this.hold('unheard');
  }

  private hold(why: 'asked' | 'unheard' | 'itself'): void {
    this.held ??= why;
    this.watchdog.held();
    this.axes.holding = true;
    this.heldNow();
    // A move by hand is not gone on with.
    if (this.word === 'jogging') this.forgetting = true;
    if (this.forgetting && this.axes.speed === 0) this.forget();
  }

  /** Takes one line of RS-274. */
  block(text: string): void {
    const line = this.lines.number();
    if (this.emergency) return this.refuse(line, 'The emergency stop is pressed; release it first.');
    if (this.alarm) return this.refuse(line, `The machine has stopped: ${this.alarm}`);
    if (this.lines.full) return this.refuse(line, 'Too many lines wait already.');
    this.lines.add(line, text);
  }

  /** Takes a control word: see `docs/stand-in.md`. */
  control(command: string, argument: string): void {
    const number = Number(argument);
    if (command === 'hold') this.hold('asked');
    else if (command === 'resume') this.resume();
    else if (command === 'stop') {
      this.endDrive();
      this.heldNow();
      this.stopping = true;
      this.axes.holding = true;
      if (this.axes.speed === 0) this.stop();
    } else if (command === 'home') this.home();
    else if (command === 'clear') {
      if (!this.emergency) this.alarm = undefined;
    } else if (command === 'watch' && number >= 0 && number <= 600) this.watchdog.patience = number;
    else if (command === 'feed' && number >= 10 && number <= 200) {
      this.axes.override = number / 100;
      this.axes.replan();
    } else if (this.ownControl(command, number)) return;
    else if (command === 'step') this.step(argument);
    else if (command === 'drive') this.drive(argument);
    else if (command === 'undrive') this.endDrive();
    else this.tell({ error: `The control word “${command} ${argument}” is not known.` });
  }

  private resume(): void {
    if (this.emergency || this.alarm) return this.tell({ error: 'The machine has stopped; clear that first.' });
    if (this.lifting) return this.tell({ error: 'The machine lifts by itself; wait until it stands.' });
    if (this.held) {
      this.held = undefined;
      this.axes.holding = this.stopping;
    } else if (this.word === 'waiting') this.word = 'moving';
  }

  /** What someone standing at the machine does. */
  hand(hand: H): void {
    if (hand.hand === 'emergency') {
      this.emergency = (hand as H & { pressed: boolean }).pressed;
      if (this.emergency) {
        // Cut off in full motion, the axes run on unseen, so where they are is no longer sure.
        if (this.axes.speed > 0) this.homed = false;
        this.halt('the emergency stop was pressed');
      }
    } else if (hand.hand === 'power') {
      this.halt('it was switched off');
      this.alarm = undefined;
      this.emergency = false;
      this.homed = false;
      this.switchOff(true);
      this.reader.restart();
      this.axes.override = 1;
      this.restarted();
    } else this.handDoes(hand);
  }

  /**
   * Lets time pass.
   * @param seconds by its own clock. @param real seconds that people and programs around it have felt.
   */
  advance(seconds: number, real = seconds): void {
    this.watch(real);
    // Small slices, so that waiting lines are read in time whatever the clock's rate.
    for (let left = seconds; left > 1e-9;) {
      const slice = Math.min(left, 0.25);
      left -= slice;
      this.slice(slice);
    }
    const done = this.finished();
    if (done > this.reported) {
      this.reported = done;
      this.tell({ done });
    }
  }

  /** What it does by itself when it is left alone: hold, and after a while lift and stop the spindle. */
  private watch(real: number): void {
    if (this.driveLeft > 0) {
      this.driveLeft -= real;
      if (this.driveLeft <= 0) this.endDrive();
    }
    if (this.watchdog.passed(real)) this.leftAlone();
    if (this.held !== 'unheard' || !this.watchdog.waited(real)) return;
    if (!this.asked || this.lifting || this.axes.speed > 0) return;
    // What waited is given up: the bit has left the cut.
    const probing = this.word === 'probing';
    this.gaveUp ||= !this.lines.empty || this.axes.queued > 0 || this.dwell > 0 || this.word !== 'idle';
    this.forget();
    if (!probing && this.lift()) return;
    this.switchOff(false);
  }

  /** Comes up by itself, and is switched off when it is there. @returns whether it may. */
  protected lift(): boolean {
    if (!this.homed || this.alarm || this.emergency || this.axes.position.z >= 0) return false;
    this.lifting = true;
    this.axes.holding = false;
    this.axes.add({ ...this.axes.position, z: 0 }, 0, 0);
    return true;
  }

  /** The last line whose every move has been made. */
  private finished(): number {
    if (this.given !== undefined) return this.given;
    if (this.axes.queued === 0 && this.beside.keptBack) return this.beside.keptBack - 1;
    if (this.axes.queued > 0) return this.axes.line > 0 ? this.axes.line - 1 : this.reported;
    const busy = this.lines.waiting.length > 0 || this.dwell > 0 || this.word === 'waiting' || this.word === 'probing';
    return busy ? Math.max(0, this.lines.read - 1) : this.lines.read;
  }

  private slice(seconds: number): void {
    this.clock += seconds;
    this.passed(seconds);
    let left = seconds;
    for (let round = 0; round < 10_000 && left > 1e-9; round++) {
      if (!this.held && !this.stopping) this.readAhead();
      if (this.axes.queued > 0) {
        left = this.axes.advance(left, (from, to, rapid, serial, power) =>
          this.travelled(from, to, rapid, serial, power),
        );
        if (this.axes.holding) {
          if (this.axes.speed > 0) return;
          this.stoodHeld();
          if (this.forgetting) this.forget();
          if (this.stopping) this.stop();
          return;
        }
        if (this.axes.queued > 0) continue;
      }
      if (this.alarm) return;
      if (this.lifting) {
        this.lifting = false;
        this.switchOff(false);
        this.axes.holding = true;
        return;
      }
      if (this.stopping) this.stop();
      // Held, nothing begins: no move, no dwell, no spindle, no next leg of homing.
      if (this.held) return this.stoodHeld();
      if (this.word === 'homing') this.arrived();
      if (this.word === 'probing') {
        // The whole way was made without a touch.
        this.halt('the probe move ended without a touch; check the clip and the plate');
        this.tell({ probe: null });
        return;
      }
      if (this.word === 'jogging') this.endOfJog();
      if (this.dwell > 0) {
        const t = Math.min(this.dwell, left);
        this.dwell -= t;
        left -= t;
        if (this.dwell > 1e-9) return;
        this.dwell = 0;
      }
      if (this.word === 'waiting' || this.waits()) return;
      const order = this.lines.waiting.shift();
      if (order) this.carryOut(order);
      else if (!this.lines.unread) {
        if (this.word === 'moving') this.word = 'idle';
        return;
      }
    }
  }

  /** Reads lines while the axes can look ahead over them; stops at whatever has to wait for the axes to arrive. */
  private readAhead(): void {
    if (this.dwell > 0 || ['homing', 'probing', 'jogging', 'waiting'].includes(this.word)) return;
    while (this.axes.wantsMore && this.lines.waiting.length === 0 && this.lines.next && !this.alarm) {
      const { line, text } = this.lines.next;
      if (this.axes.queued === 0 && !this.beside.on) this.reader.at = this.axes.position;
      let orders: Order[];
      try {
        orders = this.reader.read(text);
      } catch (error) {
        if (!(error instanceof NotObeyed)) throw error;
        this.refuse(line, error.message);
        this.halt(`line ${line} was refused: ${error.message}`);
        return;
      }
      this.lines.took();
      this.given = undefined;
      if (this.word === 'idle' && orders.length > 0) this.word = 'moving';
      let k = 0;
      for (; k < orders.length; k++) {
        const order = orders[k];
        if (order.order === 'speed' && this.powerInMoves) {
          this.power = order.turns;
          continue;
        }
        if (order.order !== 'go') break;
        if (!this.go(order, line)) return;
      }
      if (k < orders.length) this.goOn(() => this.beside.rest());
      this.lines.waiting = orders.slice(k);
    }
  }

  /** Takes a move of the program. @returns whether it may be made. */
  private go({ to, feed }: Order & { order: 'go' }, line: number): boolean {
    if (!this.mayGo(to, line)) return false;
    return this.goOn(() => this.beside.take({ to, feed, line, power: this.power }));
  }

  private goOn(moves: () => LedMove[]): boolean {
    try {
      for (const move of moves()) this.axes.add(move.to, move.feed, move.line, move.power);
      return true;
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      this.halt(error.message);
      return false;
    }
  }

  private mayGo(to: Point, line: number): boolean {
    if (!this.homed) {
      this.refuse(line, 'The machine is not homed; home it first.');
      this.halt('it was asked to move before it was homed');
      return false;
    }
    const out = beyondReach(to, this.built.travel);
    if (!out) return true;
    this.refuse(line, `This move leaves the reach of the ${out.toUpperCase()} axis.`);
    this.halt(`line ${line} would have left the reach of the ${out.toUpperCase()} axis`);
    return false;
  }

  private carryOut(order: Order): void {
    if (order.order === 'go') {
      this.go(order, this.lines.read);
    } else if (this.powerInMoves && order.order === 'speed') this.power = order.turns;
    else if (order.order === 'dwell') this.dwell = order.seconds;
    else if (order.order === 'wait') this.word = 'waiting';
    else if (order.order === 'probe') {
      if (!this.mayGo(order.to, this.lines.read)) return;
      const why = this.notProbing();
      if (why) {
        this.tell({ probe: null });
        return this.halt(why);
      }
      this.word = 'probing';
      this.axes.add(order.to, order.feed, this.lines.read);
    } else {
      if (this.powerInMoves && order.order === 'spindle') this.power = order.turns;
      this.perform(order);
    }
  }

  /** It is feeling for something, or homing. */
  protected get probing(): boolean {
    return this.word === 'probing';
  }
  protected get homing(): boolean {
    return this.word === 'homing';
  }

  /** The probe move has touched there, in the axes' own coordinates. */
  protected touched(at: Point): void {
    this.word = 'moving';
    this.tell({ probe: at });
  }

  private home(): void {
    if (this.emergency) return this.tell({ error: 'The emergency stop is pressed; release it first.' });
    if (this.held || this.alarm || !this.standing || this.live)
      return this.tell({ error: `The machine is busy; it can be homed when it stands still with ${this.part} off.` });
    this.word = 'homing';
    const { position: p } = this.axes;
    this.axes.add({ x: p.x, y: p.y, z: 0 }, 1500, 0);
    this.axes.add({ x: 0, y: 0, z: 0 }, 3000, 0);
    this.axes.add({ x: 2, y: 2, z: -2 }, 1000, 0);
    this.axes.add({ x: 0, y: 0, z: 0 }, 120, 0);
  }

  private arrived(): void {
    this.homed = true;
    this.word = 'idle';
    this.reader.at = this.axes.position;
    this.reader.restart();
  }

  /** Why it may not be moved by hand now. */
  private notByHand(): string | undefined {
    if (this.emergency || this.alarm) return 'The machine has stopped; clear that before moving by hand.';
    if (this.held) return 'The machine is held; let it go on before moving by hand.';
    if (!this.standing || this.live)
      return `The machine is busy; it can be moved by hand when it stands still with ${this.part} off.`;
    return undefined;
  }

  /** One bounded step by hand: `x dx` or `y dy` or `z dz`, and `f` in mm/min; the next when it stands again. */
  private step(argument: string): void {
    const why = this.notByHand();
    if (why) return this.tell({ error: why });
    const move = stepped(this.axes.position, argument);
    if (move) this.byHand(move);
    else this.tell({ error: `A step is at most ${LONGEST_STEP} mm.` });
  }

  /** Moves along a direction for as long as it is asked to, again and again: `x1 y0 z0 f1000`. */
  private drive(argument: string): void {
    if (this.word === 'jogging' && this.driveLeft > 0) {
      this.driveLeft = DRIVE_FOR;
      return;
    }
    const why = this.notByHand();
    if (why) return this.tell({ error: why });
    this.byHand(driven(this.axes.position, argument, this.built.travel));
    if (this.word === 'jogging') this.driveLeft = DRIVE_FOR;
  }

  private byHand({ to, feed }: HandMove): void {
    this.axes.add(
      withinReach(to, this.built.travel),
      // By hand the feed override does not count.
      Math.min(this.homed ? 6000 : 600, feed) / this.axes.override,
      0,
    );
    if (this.axes.queued > 0) this.word = 'jogging';
  }

  private endDrive(): void {
    if (this.driveLeft === 0) return;
    this.driveLeft = 0;
    if (this.word !== 'jogging') return;
    this.stopping = true;
    this.axes.holding = true;
    if (this.axes.speed === 0) this.stop();
  }

  private endOfJog(): void {
    this.word = 'idle';
    this.driveLeft = 0;
    this.reader.at = this.axes.position;
  }

  /** Holds by itself where it is, in order: nothing is lost but what was being done. */
  protected holdItself(why: string): void {
    this.why = why;
    this.hold('itself');
  }

  /** What is being done is given up: it will not be gone on with, though it is still held. */
  protected giveUp(): void {
    this.given ??= this.finished();
    this.lines.drop();
    this.axes.drop();
    this.beside.forget();
  }

  /** What waits is forgotten, and the axes stand where they are; what is on is left as it is. */
  protected forget(): void {
    this.forgetting = false;
    // What is dropped is not made.
    this.given = this.finished();
    this.lines.drop();
    this.dwell = 0;
    this.driveLeft = 0;
    this.axes.drop();
    this.beside.forget();
    this.reader.at = this.axes.position;
    if (this.word === 'homing') this.homed = false;
    this.word = 'idle';
  }

  /** The end of a stop: held no longer, with nothing left to do. */
  private stop(): void {
    this.stopping = false;
    this.lifting = false;
    this.gaveUp = false;
    this.held = undefined;
    this.forget();
    this.axes.holding = false;
  }

  protected halt(why: string): void {
    this.stop();
    this.switchOff(this.emergency);
    this.alarm = why;
    this.tell({ alarm: why });
  }

  private refuse(line: number, why: string): void {
    this.tell({ refused: line, why });
  }

  state(): S {
    const p = this.axes.position;
    const offset = this.reader.zero;
    const common: MachineState = {
      word: this.stateWord(),
      alarm: this.alarm,
      machine: rounded(p),
      work: rounded({ x: p.x - offset.x, y: p.y - offset.y, z: p.z - offset.z }),
      line: this.axes.line,
      done: this.finished(),
      homed: this.homed,
      override: Math.round(this.axes.override * 100),
      clock: this.clock,
      held: this.held,
      gaveUp: this.gaveUp || undefined,
      why: this.held === 'itself' ? this.why : undefined,
    };
    return { ...common, ...this.ownState() } as S;
  }

  private stateWord(): MachineWord {
    if (this.emergency) return 'emergency';
    if (this.alarm) return 'alarm';
    if (this.lifting) return this.held ? this.liftingWord : 'moving';
    if (this.held) return this.axes.speed > 0 ? 'slowing' : 'held';
    if (this.stopping) return 'slowing';
    if (this.word === 'waiting') return 'waiting';
    if (this.word === 'idle') return this.lines.unread ? 'moving' : this.homed ? 'idle' : 'unhomed';
    return this.word;
  }
}

export function rounded({ x, y, z }: Point): Point {
  const r = (v: number) => Math.round(v * 1e4) / 1e4;
  return { x: r(x), y: r(y), z: r(z) };
}
