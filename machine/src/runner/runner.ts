/* eslint max-lines: off -- one machine of states, and all that may change them */
import { tcp } from '../link/tcp.ts';
import type { OpenTransport } from '../link/transport.ts';
import { type LinkFault, LINK_FAULTS, LinkLost, MachineStopped, Wire } from '../link/wire.ts';
import type { Driver, Telling } from '../kinds/driver.ts';
import { driverOf } from '../kinds/kinds.ts';
import type { MachineMessage, MachineState, MachineWire } from '../link/machine-state.ts';
import type { BenchFacts } from './bench-facts.ts';
import type { Command, From } from './commands.ts';
import { RunDesk } from './run-desk.ts';
import { LengthBook } from './length-book.ts';
import { linkedAs, observe } from './observe.ts';
import { Operator } from './operator.ts';
import type { ProgramStore } from './program-store.ts';
import type { ProgramRun } from './program-run.ts';
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
  private press?: string;
  private clock?: number;
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
        return this.hold(next);
      case 'resume':
        return this.resume(next);
      case 'stop':
        return this.stop(next);
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
        return this.jog(command, next);
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
        state.facts = bench;
        this.clock = wire.state!.clock;
        driver.greet(wire, bench);
        state.machine = wire.state!;
        this.event(linkedAs(wire.state!));
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
        holdMark: this.holdMark,
        event: (name) => this.event(name),
        happened: (change) => this.zero.happened(change),
        endTask: (reason) => this.endTask(reason),
        busy: () => this.task !== undefined,
        endJog: (last) => this.endJog(last),
      });
    }
    if (machine || alarm || error) this.changed();
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
    state.doing = doing;
    state.problem = undefined;
    state.checked = next === 'running' ? state.checked : undefined;
    this.go(next);
    const whole = async () => {
      let failure: unknown;
      try {
        await work(wire, cancel.signal);
        await wire.fresh(cancel.signal);
      } catch (error) {
        failure = cancel.signal.aborted ? cancel.signal.reason : error;
      }
      state.doing = undefined;
      ended(failure);
      this.task = undefined;
      this.settle(wire, failure);
    };
    this.task = { cancel, ended: whole() };
  }

  /** How a task that has ended leaves the bench. */
  private settle(wire: MachineWire, failure: unknown): void {
    const { state } = this;
    if (failure === undefined) this.event(wire.state!.homed ? 'task-done' : 'task-done-unhomed');
    else if (failure instanceof HeldInStep) return;
    else if (failure instanceof Stopped) void this.stand(wire);
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

  private stop(next: BenchState): void {
    const { state } = this;
    const wire = this.linked();
    // Asked twice it is one stop.
    if (state.bench === 'stopping' || state.bench === 'lifting') return;
    // A tool that may stand in the work comes out of it; hands may be near in a change, and a probe stays where it is.
    this.lift =
      TABLE[state.bench].lifts === true &&
      state.machine?.homed === true &&
      state.machine.word !== 'alarm' &&
      state.machine.word !== 'emergency';
    if (next === state.bench) {
      // Standing, there is nothing to stop but what was left on.
      if (state.bench === 'ready' && state.machine && this.driver.live(state.machine)) {
        this.go('stopping');
        this.lift = true;
        void this.stand(wire);
      }
      return this.changed();
    }
    if (next === 'stopping') wire.control('stop');
    const left = state.bench === 'left';
    this.go(next);
    this.press = undefined;
    if (this.task) this.task.cancel.abort(new Stopped('Stop was pressed.'));
    else if (next === 'stopping') void this.stand(wire);
    if (left) state.problem = undefined;
  }

  /** After Stop: waits until the machine stands, lifts where that is safe, and says what the bench is at. */
  private async stand(wire: MachineWire): Promise<void> {
    const { state } = this;
    if (state.bench !== 'stopping') return;
    const cancel = new AbortController();
    const lift = this.lift;
    this.lift = false;
    const still = () => state.bench === 'stopping';
    const whole = async () => {
      try {
        for (let stands = false; !stands;) {
          // What the machine complained of on the way is told already; an alarm is a state of its own.
          wire.forget();
          stands = await wire
            .fresh(cancel.signal)
            .then(() => wire.until(() => !still() || RESTING.includes(wire.state!.word), cancel.signal))
            .then(() => true)
            .catch((error: unknown) => {
              if (error instanceof MachineStopped && !cancel.signal.aborted && still()) return false;
              throw error;
            });
        }
        if (!still()) return;
        if (lift && wire.state!.homed) {
          state.doing = 'Lifting the bit';
          this.event('lift-begins');
          await this.driver.leaveWork(wire, cancel.signal);
          await wire.fresh(cancel.signal);
        } else if (this.driver.live(wire.state!)) await this.driver.switchOff(wire, cancel.signal);
        const lifted = state.bench === 'lifting' || state.bench === 'held:lifting';
        const homed = wire.state!.homed;
        this.task = undefined;
        state.doing = undefined;
        if (lifted) this.event(homed ? 'task-done' : 'task-done-unhomed');
        else if (still()) this.event(homed ? 'stood' : 'stood-unhomed');
      } catch (error) {
        // A lost link or an alarm has said what the bench is at.
        if (!(error instanceof LinkLost || error instanceof MachineStopped)) this.fault(String(error));
      } finally {
        this.task = undefined;
        state.doing = undefined;
        this.changed();
      }
    };
    this.task = { cancel, ended: whole() };
  }

  private hold(next: BenchState): void {
    const wire = this.linked();
    wire.control('hold');
    this.holdMark = wire.mark();
    this.press = undefined;
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

  private jog(command: Command & { command: 'jog' }, next: BenchState): void {
    const wire = this.linked();
    const { press, on, x, y, z, feed } = command;
    if (!on) {
      if (this.press === press) wire.control('undrive');
      this.holdMark = wire.mark();
      return;
    }
    if (this.state.bench === 'jogging') {
      if (this.press !== press) throw new CommandRefused(this.task ? 'busy' : 'jog-over');
    } else {
      if (this.press === press) throw new CommandRefused('jog-over');
      this.press = press;
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

  private async startRun(command: Command & { command: 'run' | 'take-up' }, next: BenchState): Promise<void> {
    const { state } = this;
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

/** Words of a machine that does not move. */
const RESTING: readonly string[] = ['idle', 'unhomed', 'waiting'];

const now = () => new Date().toISOString();

function sentence(error: unknown): string {
  if (error instanceof Error && ['LinkLost', 'MachineStopped', 'CommandRefused'].includes(error.name))
    return error.message;
  return 'The machine could not be connected; check it and try again.';
}
