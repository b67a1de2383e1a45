import { vi } from 'vitest';
import type { JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { PLAIN, type Variant, varied } from '@kerbe/core/machines/program-variant';
import { programsFor } from '@kerbe/core/machines/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import { clipperFromDisk } from '../core-from-disk.ts';
import type { OpenTransport, TransportEvents } from '../link/transport.ts';
import { Controller, type Simulated } from '../stand-in/controller.ts';
import { type Command, type From, type ProgramOrder, ProgramOrderSchema } from './commands.ts';
import { benchFactsOf, orderOf } from './of-job.ts';
import { KeptPrograms, OPERATOR } from './kept-programs-for-tests.ts';
import { Runner } from './runner.ts';
import type { RunState } from './runner-state.ts';

const clipper = await clipperFromDisk();

const TICK = 10;

/**
 * A runner and a stand-in in one process, on a clock that the test moves: nothing depends on how busy the computer is.
 * Needs vitest's fake timers, which it sets: whatever has to be computed is computed before.
 */
export abstract class BenchForTests<H extends { hand: string }, M extends Simulated & { hand(hand: H): void }> {
  readonly controller: Controller<M>;
  readonly programs = new KeptPrograms();
  readonly ended: RunState[] = [];
  readonly runner: Runner;
  private events?: TransportEvents;
  /** Nothing passes either way, though nobody has said that the link is gone. */
  mute = false;
  /** What a controller says, as something on the way has it; and what it is told. Nothing where a line is lost. */
  said: (text: string) => string | undefined = (text) => text;
  told: (line: string) => string | undefined = (line) => line;
  private readonly timer: NodeJS.Timeout;

  /** @param rate of its clock. */
  constructor(build: (tell: (message: Record<string, unknown>) => void) => M, hello: string, rate: number) {
    vi.useFakeTimers({
      toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'performance', 'Date'],
    });
    this.controller = new Controller(build, hello);
    this.runner = new Runner({
      programs: this.programs,
      open: () => this.open,
      changed: () => {},
      ended: (run) => this.ended.push(structuredClone(run)),
      endOf: (id) => this.ended.find((run) => run.id === id),
    });
    this.timer = setInterval(() => this.controller.pass((TICK / 1000) * rate, TICK), TICK);
  }

  private open: OpenTransport = async (events) => {
    if (this.controller.busy) throw new Error('taken');
    this.events = events;
    const mine = events;
    this.controller.connect((text) => {
      const said = this.said(text);
      if (!this.mute && said !== undefined) queueMicrotask(() => this.events === mine && events.line(said));
    });
    return {
      send: (line) => {
        const told = this.told(line);
        if (!this.mute && this.events === mine && told !== undefined) this.controller.hear(told + '\n');
      },
      close: () => this.cut(),
    };
  };

  /** The link breaks. */
  cut(): void {
    const { events } = this;
    if (!events) return;
    this.events = undefined;
    this.controller.disconnect();
    events.closed();
  }

  /** The simulated machine. */
  get machine(): M {
    return this.controller.machine;
  }
  get state() {
    return this.runner.state;
  }

  tell(command: Command, from: From = OPERATOR): Promise<void> {
    return this.runner.do(command, from);
  }

  hand(hand: H): void {
    this.machine.hand(hand);
  }

  async pass(milliseconds: number): Promise<void> {
    await vi.advanceTimersByTimeAsync(milliseconds);
  }

  /** Lets time pass until something holds. */
  async until(condition: () => boolean, what: string, seconds = 1500): Promise<void> {
    for (let t = 0; t < seconds * 1000; t += 20) {
      if (condition()) return;
      await this.pass(20);
    }
    const { bench, machine, problem, doing, run } = this.state;
    throw new Error(
      `waited too long for ${what}: ${JSON.stringify({ bench, doing, problem, machine, phase: run?.phase, line: run?.line })}`,
    );
  }

  idle(): Promise<void> {
    return this.until(() => this.state.bench === 'ready', 'the bench to stand');
  }

  end(): void {
    clearInterval(this.timer);
    vi.useRealTimers();
  }

  async connect(job: Job): Promise<void> {
    await this.tell({ command: 'connect', port: 1, bench: benchFactsOf(job) });
  }

  /** As many single steps as a way needs. */
  async step(axis: 'x' | 'y' | 'z', by: number): Promise<void> {
    const most = axis === 'z' ? 25 : 100;
    for (let left = by; Math.abs(left) > 1e-9;) {
      const now = Math.max(-most, Math.min(most, left));
      await this.tell({ command: 'step', axis, by: now, feed: 3000 });
      await this.idle();
      left -= now;
    }
  }

  /** A job’s program, its first unless another is said, kept and ordered as the server does. */
  order(job: Job, result: Pick<JobResult, 'cuts' | 'beside'>, variant: Partial<Variant> = {}, which = 0): ProgramOrder {
    const whole = { ...PLAIN, ...variant };
    const made = varied(job, result, whole, clipper);
    const program = programsFor(job, made, { revision: '1', date: '2026-11-26', notes: made.notes })[which];
    const hash = this.programs.keep(program.text, timelineOf(program, made, job.bench.limits));
    const order = orderOf('job', job, made, program, '1', hash, whole);
    // It can be kept on disk and read again.
    ProgramOrderSchema.parse(JSON.parse(JSON.stringify(order)));
    return order;
  }

  async check(order: ProgramOrder): Promise<{ token: string; hash: string }> {
    await this.tell({ command: 'check', program: order });
    return { token: this.state.checked!.token, hash: order.hash };
  }

  async run(order: ProgramOrder, id = 'run-1'): Promise<void> {
    await this.tell({ command: 'run', id, ...(await this.check(order)) });
  }
}
