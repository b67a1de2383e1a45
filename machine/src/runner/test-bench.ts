import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { vi } from 'vitest';
import { compute, type JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import { clipperFromDisk, resourcesFromDisk } from '../core-from-disk.ts';
import type { OpenTransport, TransportEvents } from '../link/transport.ts';
import { Controller } from '../kinds/router/stand-in/controller.ts';
import type { Hand } from '../kinds/router/stand-in/hands.ts';
import type { Command, From, ProgramOrder } from './commands.ts';
import { basisOf, benchFactsOf, bitShapeOf, orderOf } from './of-job.ts';
import { programFacts, programPlace, linesOf } from './program-facts.ts';
import type { ProgramStore, Timeline } from './program-store.ts';
import { Runner } from './runner.ts';
import type { RunState } from './runner-state.ts';
import { routerBench } from '../kinds/router/bench-kind.ts';
import { routerState } from '../kinds/router/messages.ts';

/** Programs kept in memory, for tests. */
export class KeptPrograms implements ProgramStore {
  readonly kept = new Map<string, { text: string; timeline: Timeline }>();
  private async *bytes(hash: string): AsyncGenerator<Uint8Array> {
    yield new TextEncoder().encode(this.kept.get(hash)!.text);
  }
  keep(text: string, timeline: Timeline = { minutes: new Float64Array(), feeding: new Float64Array() }): string {
    const hash = createHash('sha256').update(text).digest('hex');
    this.kept.set(hash, { text, timeline });
    return hash;
  }
  facts = (hash: string) => programFacts(this.bytes(hash));
  place = (hash: string, line: number) => programPlace(this.bytes(hash), line);
  async *lines(hash: string, from: number): AsyncIterable<string> {
    let k = 0;
    for await (const line of linesOf(this.bytes(hash))) if (k++ >= from) yield line;
  }
  timeline = async (hash: string) => this.kept.get(hash)!.timeline;
}

export const OPERATOR: From = { page: 'page-1', name: 'Asa' };
const TICK = 10;

/**
 * A runner and a stand-in in one process, on a clock that the test moves: nothing depends on how busy the computer is.
 * Needs vitest's fake timers, which it sets: whatever has to be computed is computed before.
 */
export class TestBench {
  readonly controller: Controller;
  readonly programs = new KeptPrograms();
  readonly ended: RunState[] = [];
  readonly runner: Runner;
  private events?: TransportEvents;
  /** Nothing passes either way, though nobody has said that the link is gone. */
  mute = false;
  private readonly timer: NodeJS.Timeout;

  constructor({ seed = 7, rate = 5 }: { seed?: number; rate?: number } = {}) {
    vi.useFakeTimers({
      toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'performance', 'Date'],
    });
    this.controller = new Controller(seed);
    this.runner = new Runner({
      programs: this.programs,
      open: () => this.open,
      changed: () => {},
      ended: (run) => this.ended.push(structuredClone(run)),
    });
    this.timer = setInterval(() => this.controller.pass((TICK / 1000) * rate, TICK), TICK);
  }

  private open: OpenTransport = async (events) => {
    if (this.controller.busy) throw new Error('taken');
    this.events = events;
    const mine = events;
    this.controller.connect((text) => {
      if (!this.mute) queueMicrotask(() => this.events === mine && events.line(text));
    });
    return {
      send: (line) => {
        if (!this.mute && this.events === mine) this.controller.hear(line + '\n');
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

  get router() {
    return this.controller.router;
  }
  get state() {
    return this.runner.state;
  }

  tell(command: Command, from: From = OPERATOR): Promise<void> {
    return this.runner.do(command, from);
  }

  hand(hand: Hand): void {
    this.router.hand(hand);
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

  /** Connects, homes, lays the stock, puts the bit in, and hangs it over the plate on the lower left corner. */
  async prepare(job: Job, bit: string, place: 'corner' | 'flat' | 'spoilboard' = 'corner'): Promise<void> {
    if (this.state.bench === 'off') await this.connect(job);
    if (this.state.bench === 'unhomed') {
      await this.tell({ command: 'home' });
      await this.idle();
    }
    this.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
    await this.fit(job, bit);
    await this.overPlate(place);
  }

  /** Puts a bit in and says so. */
  async fit(job: Job, id: string): Promise<void> {
    const bit = bitShapeOf(job.bits, id);
    this.hand({ hand: 'bit', ...bit });
    await this.tell({ command: 'bit-in', bit });
  }

  /** Lays the plate, tries the circuit, and brings the bit over the plate by looking. */
  async overPlate(place: 'corner' | 'flat' | 'spoilboard'): Promise<void> {
    this.hand({ hand: 'plate', place, corner: 'lower-left' });
    this.hand({ hand: 'clip', on: true });
    this.hand({ hand: 'tap', on: true });
    await this.until(() => this.state.circuit !== undefined, 'the circuit');
    this.hand({ hand: 'tap', on: false });
    await this.until(() => routerState(this.state.machine)?.touching === false, 'the circuit to open');
    const look = this.router.look() as {
      tip: Place;
      plate: { x0: number; x1: number; y0: number; y1: number; z1: number };
    };
    const { plate } = look;
    await this.step('z', -look.tip.z + Math.min(-5, plate.z1 + 45));
    await this.step('x', (plate.x0 + plate.x1) / 2 - look.tip.x);
    await this.step('y', (plate.y0 + plate.y1) / 2 - look.tip.y);
    const { tip } = this.router.look() as { tip: Place };
    await this.step('z', plate.z1 + 12 - tip.z);
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

  async zero(job: Job, method: 'corner' | 'flat' | 'spoilboard' = 'corner', id = 'job'): Promise<void> {
    await this.tell({ command: 'zero', method, corner: 'lower-left', basis: basisOf(id, job) });
    await this.idle();
  }

  async clearPlate(job = 'job'): Promise<void> {
    this.hand({ hand: 'clip', on: false });
    this.hand({ hand: 'plate', place: 'away' });
    for (const { id } of routerBench.ticks) await this.tell({ command: 'tick', step: id, on: true, job });
  }

  /** Everything up to a zero on the lower left corner with the list ticked. */
  async setUp(job: Job, bit: string): Promise<void> {
    await this.prepare(job, bit);
    await this.zero(job);
    await this.clearPlate();
  }

  async check(order: ProgramOrder): Promise<{ token: string; hash: string }> {
    await this.tell({ command: 'check', program: order });
    return { token: this.state.checked!.token, hash: order.hash };
  }

  async run(order: ProgramOrder, id = 'run-1'): Promise<void> {
    await this.tell({ command: 'run', id, ...(await this.check(order)) });
  }
}

interface Place {
  x: number;
  y: number;
  z: number;
}

const computed = new Map<string, Promise<{ job: Job; result: JobResult }>>();

/** A demo job with its result; computed once for the same key. Before a bench is made, since its clock is not real. */
export async function demoJob(
  name: string,
  change: (job: Job) => void = () => {},
  key = '',
): Promise<{ job: Job; result: JobResult }> {
  const make = async () => {
    const url = new URL(`../../../demo/jobs/${name}.kerbe.json`, import.meta.url);
    const { job, assets } = readJobFile(readFileSync(url, 'utf8'));
    change(job);
    const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
    const result = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
    return { job, result };
  };
  const id = `${name} ${key}`;
  if (!computed.has(id) || (change.length && !key)) computed.set(id, make());
  return computed.get(id)!;
}

/** The programs of a job as orders, their texts kept by the bench. */
export function ordersOf(bench: TestBench, job: Job, result: JobResult, id = 'job'): ProgramOrder[] {
  return programsFor(job, result, { revision: '1', date: '2026-11-25' }).map((program) =>
    orderOf(
      id,
      job,
      result,
      program,
      '1',
      bench.programs.keep(program.text, timelineOf(program, result, job.bench.limits)),
    ),
  );
}
