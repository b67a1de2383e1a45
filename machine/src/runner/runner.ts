/* eslint max-lines: off -- one machine of states, and all that may change them */
import { tcp } from '../link/tcp.ts';
import type { OpenTransport } from '../link/transport.ts';
import { COUNT_FAULTS, CountLost, type LinkFault, LINK_FAULTS, LinkLost, MachineStopped, Wire } from '../link/wire.ts';
import type { Driver, Telling } from '../kinds/driver.ts';
import { driverOf } from '../kinds/kinds.ts';
import type { MachineMessage, MachineState, MachineWire } from '../link/machine-state.ts';
import type { BenchFacts } from './bench-facts.ts';
import { bringToStand } from './bring-to-stand.ts';
import type { Command, From } from './commands.ts';
import { RunDesk } from './run-desk.ts';
import { LengthBook } from './length-book.ts';
import { linkedAs, observe } from './observe.ts';
import { Presses } from './presses.ts';
import { Operator } from './operator.ts';
import type { ProgramStore } from './program-store.ts';
import type { ProgramRun } from './program-run.ts';
import type { JournalRecord } from './journal.ts';
import { CommandRefused, type Reason } from './reasons.ts';
import type { RunnerState, RunState } from './runner-state.ts';
import type { BenchState, EventName } from './states.ts';
import { afterEvent, ANYONE, answerTo, TABLE } from './table.ts';
import { clearTicks } from './ticks.ts';
import { whyNot } from './guards.ts';
import { ZeroKeeper } from './zero-keeper.ts';

export interface RunnerParts {
  programs: ProgramStore;
  lengths?: LengthBook;
  /** Opens the way to a machine; a loopback port where it is left out. */
  open?: (port: number) => OpenTransport;
  /** Called on every change of state. */
  changed: () => void;
  /** Called once before a run begins, which it does not where this throws, and once when it has ended. */
  began?: (run: RunState) => void;
  ended: (run: RunState) => void;
  /** How a run ended, by the runner’s own record; nothing where it is not known there. */
  endOf?: (run: string) => Pick<JournalRecord, 'hash' | 'line' | 'lineUnknown'> | undefined;
}

/** Ends a task: Stop was pressed. */
class Stopped extends Error {
  override name = 'Stopped';
}

/** Ends a single step: it was held, and is not gone on with. */
class HeldInStep extends Error {
  override name = 'HeldInStep';
}

/**
 * Drives one bench by the table of `table.ts`. It is told what to do by commands and says what it does by its state;
 * nothing moves that was not asked for. Every wait of a task obeys one abort signal, which Stop and a lost link fire.
 */
export class Runner {
  readonly state: RunnerState = { bench: 'off', ticks: {} };
  private wire?: MachineWire;
  private pending?: { done: Promise<void>; cancel: AbortController };
  private task?: { cancel: AbortController; ended: Promise<void> };
  private holdMark = 0;
  private readonly presses = new Presses();
  /** Presses of Hold and Stop that were heard: one that is told twice is one. */
  private readonly heardPresses = new Set<string>();
  /** Hold or Stop was pressed while the machine was being connected. */
  private early?: 'hold' | 'stop';
  private clock?: number;
  /** The link whose count was said to be wrong. */
  private countTold?: MachineWire;
  private run_?: ProgramRun;
  private readonly lengths: LengthBook;
  private readonly operator: Operator;
  private readonly zero: ZeroKeeper;
  private readonly desk: RunDesk;

  constructor(private readonly parts: RunnerParts) {
    this.lengths = parts.lengths ?? new LengthBook();
    this.zero = new ZeroKeeper(this.state, () => this.changed());
    this.desk = new RunDesk(this.state, parts.programs, this.zero);
    this.operator = new Operator(this.state, () => this.changed());
  }

  /** A page is there, or has gone. */
  seen(page: string, there: boolean): void {
    this.operator.seen(page, there);
  }

  /** Carries out a command; long ones go on after this returns. @throws {CommandRefused} */
  async do(command: Command, from: From): Promise<void> {
    const { state } = this;
    const refuse = (reason: Reason | undefined, message?: string) => {
      if (reason) throw new CommandRefused(reason, message);
    };
    // Whatever becomes of it, a press that was heard of is not a new one any more.
    const fresh = command.command !== 'jog' || this.presses.first(command.press);
    const answer = answerTo(state.bench, command.command);
    if (!ANYONE.includes(command.command)) refuse(this.operator.mayCommand(from));
    if ('refused' in answer) throw new CommandRefused(answer.refused);
    refuse(whyNot(state, command));
    const next = answer.to;

    switch (command.command) {
      case 'take':
        return this.operator.take(from);
      case 'give':
        return refuse(this.operator.give());
      case 'keep':
        return refuse(this.operator.keep());
      case 'connect':
        return this.connect(command.port, command.bench, next);
      case 'disconnect':
        return this.disconnect();
      case 'tick':
        if (command.on) state.ticks[command.step] = { at: now(), by: from.name, job: command.job };
        else delete state.ticks[command.step];
        return this.changed();
      case 'board-moved':
        this.zero.happened('board-moved');
        clearTicks(state, 'board-moved');
        return this.changed();
      case 'use-here':
        return this.zero.useHere(command.basis);
      case 'check':
        await this.desk.check(command.program);
        return this.changed();
      case 'hold':
        return this.again(command.press) ? undefined : this.hold(next);
      case 'resume':
        return this.resume(next);
      case 'stop':
        return this.again(command.press) ? undefined : this.stop(next);
      case 'clear':
        state.problem = undefined;
        this.linked().clear();
        return this.changed();
      case 'feed':
        return this.linked().control(`feed ${command.percent}`);
      case 'confirm':
        this.go(next);
        return this.run_?.answer(command.command);
      case 'jog':
        return this.jog(command, next, fresh);
      case 'step':
        return this.begin(next, 'Moving by hand', async (wire, signal) => {
          wire.control(`step ${command.axis}${command.by} f${command.feed}`);
          await wire.fresh(signal);
          await wire.until(() => wire.state!.word !== 'jogging' && !wire.state!.held, signal);
        });
      case 'home':
        return this.begin(next, 'Homing', (wire, signal) => this.driver.home(wire, signal));
      case 'go-to-zero':
        this.zero.demand(command.basis);
        return this.begin(next, 'Going to zero: up, across, down', (wire, signal) =>
          this.driver.goToZero(wire, command.lift, signal),
        );
      case 'run':
        return this.startRun(command, next);
      case 'take-up':
        return this.startRun(command, next);
      default:
        return this.driver.own(command, from, {
          state,
          facts: state.facts!,
          lengths: this.lengths,
          telling: this.telling(),
          changed: () => this.changed(),
          happened: (change) => this.zero.happened(change),
          control: (word) => this.linked().control(word),
          begin: (doing, work) => this.begin(next, doing, work),
          answer: () => {
            this.go(next);
            this.run_?.answer(command.command);
          },
        });
    }
  }

  // ------------------------------------------------------------------ the state and what changes it

  private go(to: BenchState): void {
    this.state.bench = to;
    this.changed();
  }

  /** Something happened; the table says what follows. */
  private event(name: EventName): void {
    const to = afterEvent(this.state.bench, name);
    if (name === 'machine-held') this.endStep();
    if (to === undefined) {
      this.fault(`“${name}” cannot happen while the bench is “${this.state.bench}”`);
      return;
    }
    this.go(to);
  }

  /** A fault of ours: said as such, and the machine is held. */
  private fault(what: string): void {
    this.state.problem = `Something is wrong in Kerbe itself (${what}); the machine is held. Look at it, then stop it.`;
    console.error(JSON.stringify({ level: 'error', at: 'runner', message: what, bench: this.state.bench }));
    this.wire?.control('hold');
    this.changed();
  }

  private changed(): void {
    this.parts.changed();
  }

  // ------------------------------------------------------------------ the link

  /** @returns when the link stands; everyone who asks meanwhile waits for the same. */
  private connect(port: number, bench: BenchFacts, next: BenchState): Promise<void> {
    this.pending ??= this.opening(port, bench, next);
    return this.pending.done;
  }

  private opening(port: number, bench: BenchFacts, next: BenchState): { done: Promise<void>; cancel: AbortController } {
    const cancel = new AbortController();
    const { state } = this;
    Object.assign(state, { problem: undefined, circuit: undefined, machine: undefined, checked: undefined });
    this.early = undefined;
    this.go(next);
    const open = async () => {
      try {
        const driver = driverOf(bench.kind);
        const wire: MachineWire = await Wire.open<MachineState>(
          (this.parts.open ?? tcp)(port),
          (value) => driver.message.parse(value),
          (message, own) => this.heard(own, message),
          (fault, own) => this.gone(own, fault),
          cancel.signal,
        );
        this.wire = wire;
        if (this.early) wire.control(this.early);
        state.facts = bench;
        this.clock = wire.state!.clock;
        driver.greet(wire, bench);
        state.machine = wire.state!;
        this.event(linkedAs(wire.state!, driver));
        this.counted(wire);
      } catch (error) {
        if (state.bench === 'connecting') {
          if (!cancel.signal.aborted) state.problem = sentence(error);
          this.event('link-failed');
        }
        throw new CommandRefused('not-connected', sentence(error));
      } finally {
        this.pending = undefined;
      }
    };
    return { done: open(), cancel };
  }

  private disconnect(): void {
    this.pending?.cancel.abort(new LinkLost('closed'));
    if (this.wire) this.wire.close('closed');
    else this.go('off');
  }

  private gone(wire: MachineWire, fault: LinkFault): void {
    if (this.wire !== wire) return;
    this.wire = undefined;
    const { state } = this;
    this.zero.happened('link-lost');
    Object.assign(state, { machine: undefined, circuit: undefined, doing: undefined, checked: undefined });
    state.ticks = {};
    state.problem = fault === 'closed' ? undefined : LINK_FAULTS[fault];
    this.event(fault === 'closed' ? 'link-closed' : 'link-lost');
    this.task?.cancel.abort(new LinkLost(fault));
  }

  /** How the machine of the connected bench is led. */
  private get driver(): Driver {
    return driverOf(this.state.facts!.kind);
  }

  private linked(): MachineWire {
    if (!this.wire) throw new CommandRefused('not-connected');
    return this.wire;
  }

  private heard(wire: MachineWire, { state: machine, alarm, error }: MachineMessage): void {
    if (this.wire !== wire) return;
    const { state } = this;
    if (alarm) state.problem = `The machine has stopped: ${alarm}.`;
    if (error) state.problem = error;
    if (machine) {
      const before = state.machine;
      state.machine = machine;
      if (state.facts) driverOf(state.facts.kind).noted(state, machine);
      this.timed(machine.clock);
      observe(machine, before, {
        state,
        wire,
        driver: this.driver,
        holdMark: this.holdMark,
        event: (name) => this.event(name),
        happened: (change) => this.zero.happened(change),
        endTask: (reason) => this.endTask(reason),
        busy: () => this.task !== undefined,
        endJog: (last) => this.endJog(last),
      });
    }
    this.counted(wire);
    if (machine || alarm || error) this.changed();
  }

  /** Where nobody knows which line the machine is at, what is on ends, and it is left held. */
  private counted(wire: MachineWire): void {
    const { state } = this;
    const fault = wire.countFault;
    // Where Stop was pressed already, the link is closed when it stands.
    if (!fault || this.countTold === wire || ['stopping', 'lifting', 'held:lifting'].includes(state.bench)) return;
    if (!afterEvent(state.bench, 'count-lost')) return;
    this.countTold = wire;
    this.zero.happened('position-lost');
    this.presses.end();
    this.event('count-lost');
    state.problem = COUNT_FAULTS[fault];
    this.endTask(new CountLost(fault));
    this.changed();
  }

  /** Time that has passed by the machine's clock, put to the run that is on. */
  private timed(clock: number): void {
    const passed = Math.max(0, clock - (this.clock ?? clock));
    this.clock = clock;
    this.run_?.timed(passed, this.state.bench === 'running');
  }

  // ------------------------------------------------------------------ tasks

  /** Starts something that takes time. It ends by itself, by Stop, by the machine, or with the link. */
  private begin(
    next: BenchState,
    doing: string,
    work: (wire: MachineWire, signal: AbortSignal) => Promise<void>,
    ended: (error: unknown) => void = () => {},
  ): void {
    const wire = this.linked();
    const cancel = new AbortController();
    const { state } = this;
    // What the machine complained of before is over: it stands, and is asked for something new.
    wire.forget();
    state.doing = doing;
    state.problem = undefined;
    state.checked = next === 'running' ? state.checked : undefined;
    this.go(next);
    const whole = async () => {
      let failure: unknown;
      try {
        await work(wire, cancel.signal);
        await this.rested(wire, cancel.signal);
      } catch (error) {
        failure = cancel.signal.aborted ? cancel.signal.reason : error;
      }
      state.doing = undefined;
      wire.giveUp();
      ended(failure);
      this.task = undefined;
      this.settle(wire, failure);
    };
    this.task = { cancel, ended: whole() };
  }

  /** Nothing is done while the machine says that it moves, or that anything is on at it. */
  private async rested(wire: MachineWire, signal: AbortSignal): Promise<void> {
    const rests = () => ['idle', 'unhomed'].includes(wire.state!.word) && !wire.state!.held;
    await wire.fresh(signal);
    await wire.until(rests, signal);
    if (!this.driver.live(wire.state!)) return;
    this.telling().say('Waiting until the tool is off');
    await wire.until(() => rests() && !this.driver.live(wire.state!), signal);
  }

  /** How a task that has ended leaves the bench. */
  private settle(wire: MachineWire, failure: unknown): void {
    const { state } = this;
    if (failure === undefined) this.event(wire.state!.homed ? 'task-done' : 'task-done-unhomed');
    else if (failure instanceof HeldInStep) return;
    else if (failure instanceof Stopped) void this.stand(wire);
    else if (failure instanceof CountLost) return;
    else if (failure instanceof MachineStopped || failure instanceof LinkLost || failure instanceof CommandRefused) {
      state.problem = failure.message;
      // The machine's own state has said the rest, unless it refused without stopping.
      if (!['alarm', 'emergency', 'lost', 'off', 'unhomed'].includes(state.bench)) {
        this.state.bench = 'stopping';
        wire.control('stop');
        void this.stand(wire);
      }
    } else {
      this.fault(failure instanceof Error ? failure.message : String(failure));
      if (this.wire === wire) {
        this.state.bench = 'stopping';
        wire.control('stop');
        void this.stand(wire);
      }
    }
    this.changed();
  }

  private endTask(reason: Error): void {
    this.task?.cancel.abort(reason);
  }

  private lift = false;

  /**
   * It goes to the controller on every press, whatever the bench is believed to be at. A tool that may stand in the work
   * comes out of it once; where hands may be near, and at rest, nothing is lifted.
   */
  private stop(next: BenchState): void {
    const { state, wire } = this;
    if (!wire) {
      this.early = 'stop';
      return this.changed();
    }
    wire.control('stop');
    this.presses.end();
    this.holdMark = wire.mark();
    if (state.bench === 'stopping') return this.changed();
    const live = state.machine !== undefined && this.driver.live(state.machine);
    if (next === 'stopping')
      this.lift =
        TABLE[state.bench].lifts === true &&
        state.machine?.homed === true &&
        state.machine.word !== 'alarm' &&
        state.machine.word !== 'emergency';
    else if (state.bench === 'ready' && live) next = 'stopping';
    if (state.bench === 'left') state.problem = undefined;
    this.go(next);
    if (this.task) this.task.cancel.abort(new Stopped('Stop was pressed.'));
    else if (next === 'stopping') void this.stand(wire);
  }

  /** After Stop: waits until the machine stands, lifts where that is safe, and says what the bench is at. */
  private async stand(wire: MachineWire): Promise<void> {
    const { state } = this;
    if (state.bench !== 'stopping') return;
    const cancel = new AbortController();
    const lift = this.lift;
    this.lift = false;
    const whole = async () => {
      try {
        await bringToStand(wire, this.driver, {
          lift,
          state,
          event: (name) => this.event(name),
          signal: cancel.signal,
        });
      } catch (error) {
        // A lost link or an alarm has said what the bench is at.
        if (!(error instanceof LinkLost || error instanceof MachineStopped || error instanceof Stopped))
          this.fault(String(error));
      } finally {
        this.task = undefined;
        state.doing = undefined;
        this.changed();
      }
      // Stopped in the lift: it stands where it is now, and is not lifted once more.
      if (cancel.signal.reason instanceof Stopped) await this.stand(wire);
    };
    this.task = { cancel, ended: whole() };
  }

  /** Whether a press of Hold or Stop was heard already: pages tell it over more than one way, and again. */
  private again(press: string | undefined): boolean {
    if (press === undefined) return false;
    if (this.heardPresses.has(press)) return true;
    this.heardPresses.add(press);
    if (this.heardPresses.size > MOST_HEARD) this.heardPresses.delete(this.heardPresses.values().next().value!);
    return false;
  }

  private hold(next: BenchState): void {
    const { wire } = this;
    if (!wire) {
      this.early ??= 'hold';
      return this.changed();
    }
    wire.control('hold');
    this.holdMark = wire.mark();
    this.presses.end();
    this.endStep();
    this.go(next);
  }

  /** A move by hand that is held has ended. */
  private endStep(): void {
    if (this.state.bench !== 'jogging') return;
    this.state.doing = undefined;
    this.endTask(new HeldInStep('It was held.'));
  }

  private resume(next: BenchState): void {
    const wire = this.linked();
    wire.control('resume');
    this.holdMark = wire.mark();
    this.state.problem = undefined;
    this.go(next);
  }

  // ------------------------------------------------------------------ by hand

  private jog(command: Command & { command: 'jog' }, next: BenchState, first: boolean): void {
    const wire = this.linked();
    const { press, on, x, y, z, feed } = command;
    if (!on) {
      if (this.presses.is(press)) wire.control('undrive');
      this.presses.end();
      this.holdMark = wire.mark();
      return;
    }
    if (this.state.bench === 'jogging') {
      if (this.task) throw new CommandRefused('busy');
      if (!this.presses.goesOn(press)) throw new CommandRefused('jog-over');
    } else {
      if (!first) throw new CommandRefused('jog-over');
      this.presses.begin(press);
      this.state.problem = undefined;
    }
    wire.control(`drive x${x} y${y} z${z} f${feed}`);
    if (this.state.bench !== 'jogging') {
      this.holdMark = wire.mark();
      this.state.doing = 'Moving by hand';
      this.go(next);
    }
  }

  private endJog(machine: MachineState): void {
    this.state.doing = undefined;
    this.presses.end();
    this.event(machine.homed ? 'task-done' : 'task-done-unhomed');
  }

  private telling(): Telling {
    return {
      say: (doing) => {
        this.state.doing = doing;
        this.changed();
      },
      probing: (on) => this.event(on ? 'probe-begins' : 'probe-ends'),
    };
  }

  // ------------------------------------------------------------------ runs

  /** What the runner's own record says of the run that is to be taken up. @throws {CommandRefused} */
  private mayTakeUp({ broken, hash, line }: Command & { command: 'take-up' }): void {
    const end = this.parts.endOf?.(broken);
    if (!end) return;
    if (end.lineUnknown) throw new CommandRefused('line-unknown');
    if (end.hash !== undefined && end.hash !== hash) throw new CommandRefused('other-program');
    if (line > end.line) throw new CommandRefused('beyond-broken');
  }

  private async startRun(command: Command & { command: 'run' | 'take-up' }, next: BenchState): Promise<void> {
    const { state } = this;
    if (command.command === 'take-up') this.mayTakeUp(command);
    const run = await this.desk.prepare(command, {
      state,
      programs: this.parts.programs,
      lengths: this.lengths,
      event: (name) => this.event(name),
      changed: () => this.changed(),
      telling: this.telling(),
      happened: (change) => this.zero.happened(change),
    });
    const again = answerTo(state.bench, command.command);
    if ('refused' in again) throw new CommandRefused(again.refused);
    this.parts.began?.(run.state);
    this.run_ = run;
    state.run = run.state;
    this.begin(
      next,
      'Running',
      (wire, signal) => run.make(wire, signal),
      (failure) => {
        run.end(failure, failure instanceof Stopped);
        this.run_ = undefined;
        clearTicks(state, 'run');
        state.checked = undefined;
        state.question = undefined;
        this.parts.ended(run.state);
      },
    );
  }
}

/** Presses of Hold and Stop that are remembered. */
const MOST_HEARD = 200;

const now = () => new Date().toISOString();

function sentence(error: unknown): string {
  if (error instanceof Error && ['LinkLost', 'MachineStopped', 'CommandRefused'].includes(error.name))
    return error.message;
  return 'The machine could not be connected; check it and try again.';
}
