import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { type Part, type Shop, startShop } from '../../command/src/shop.ts';
import type { Checked, RunnerState } from '../../machine/src/runner/runner-state.ts';

/** What someone beside the simulated machine sees, as far as these tests ask. */
export interface Look {
  spindle: number;
  tip: { x: number; y: number; z: number };
  plate?: { x0: number; x1: number; y0: number; y1: number; z1: number };
}

export interface LoggedRun {
  id: string;
  phase: string;
  why: string | null;
  line: number | null;
  lines: number;
  minutes: number | null;
  started: string;
  ended: string | null;
}

/** How long a test waits for what is to come, ms: patience, and no measure of speed. */
export const PATIENCE = 240_000;

/** A request that was answered with a status that is not 2xx. */
export class Answered extends Error {
  override name = 'Answered';
  constructor(
    readonly status: number,
    readonly problem: string,
  ) {
    super(`${status} ${problem}`);
  }
}

/** A whole shop on data of its own, and whoever works at it, for a test that breaks it. */
export class AtTheBench {
  private constructor(
    readonly shop: Shop,
    readonly data: string,
    readonly page: string,
  ) {}

  static async open(seed: number, rate = 60): Promise<AtTheBench> {
    process.env.KERBE_QUIET ??= '1';
    const data = mkdtempSync(`${tmpdir()}/kerbe-faults-`);
    return new AtTheBench(await startShop({ data, web: 0, database: 0, rate, seed }), data, 'test-page');
  }

  close(): void {
    this.shop.stop();
    rmSync(this.data, { recursive: true, force: true });
  }

  /** Someone else at another page of the same shop. */
  other(page: string): AtTheBench {
    return new AtTheBench(this.shop, this.data, page);
  }

  /** @throws {Answered}; whatever `fetch` throws where nobody answers. */
  async ask<T = unknown>(path: string, body?: unknown, method = body === undefined ? 'GET' : 'POST'): Promise<T> {
    const response = await fetch(new URL(path, this.shop.address), {
      method,
      headers: { 'x-kerbe-page': this.page, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: AbortSignal.timeout(60_000),
    });
    const data = (await response.json()) as T & { problem?: string };
    if (!response.ok) throw new Answered(response.status, data.problem ?? '');
    return data;
  }

  tell(command: Record<string, unknown>): Promise<RunnerState> {
    return this.ask('/api/benches/dome-workshop/command', command);
  }

  /** What the bench says of itself: the first event of its stream. */
  async state(): Promise<RunnerState> {
    const leave = new AbortController();
    const late = setTimeout(() => leave.abort(), 5000);
    try {
      const response = await fetch(new URL('/api/benches/dome-workshop/events?page=watcher', this.shop.address), {
        signal: leave.signal,
      });
      if (!response.ok) throw new Answered(response.status, await response.text());
      let text = '';
      for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
        text += part;
        if (text.includes('\n\n')) break;
      }
      return JSON.parse(text.slice('data: '.length, text.indexOf('\n\n'))) as RunnerState;
    } finally {
      clearTimeout(late);
      leave.abort();
    }
  }

  hand(what: Record<string, unknown>): Promise<Look> {
    return this.ask('/api/benches/dome-workshop/stand-in', what);
  }

  /** Past the web server, which may be away. */
  async look(): Promise<Look> {
    return (await (await fetch(`${this.shop.hands}/look`, { signal: AbortSignal.timeout(3000) })).json()) as Look;
  }

  /** Whether it is where it was a moment before. */
  async stands(): Promise<boolean> {
    const [before] = [await this.look(), await pause(800)];
    const after = await this.look();
    return JSON.stringify(before.tip) === JSON.stringify(after.tip);
  }

  runs(job: string): Promise<LoggedRun[]> {
    return this.ask<{ runs: LoggedRun[] }>(`/api/jobs/${job}/runs`).then(({ runs }) => runs);
  }

  async when(condition: (state: RunnerState) => boolean): Promise<RunnerState> {
    return this.eventually(
      () => this.state(),
      (state) => condition(state),
    );
  }

  /** Asks until the answer is as wanted; what goes wrong meanwhile is tried again. */
  async eventually<T>(look: () => Promise<T>, wanted: (value: T) => boolean): Promise<T> {
    let last: unknown;
    for (const until = Date.now() + PATIENCE; Date.now() < until;) {
      try {
        const value = await look();
        if (wanted(value)) return value;
        last = value;
      } catch (error) {
        last = error;
      }
      await pause(100);
    }
    throw new Error(
      `waited too long; last: ${last instanceof Error ? String(last) : JSON.stringify(last).slice(0, 1500)}`,
    );
  }

  ready(): Promise<RunnerState> {
    return this.when((s) => s.bench === 'ready');
  }

  /** Kills a part of the shop, and returns when it is there again as a new process. */
  async kill(part: Part | 'database', { wait = true } = {}): Promise<void> {
    const pid = this.pidOf(part)!;
    process.kill(pid, 'SIGKILL');
    if (wait) await this.back(part, pid);
  }

  async back(part: Part | 'database', before: number): Promise<void> {
    await this.eventually(
      async () => this.pidOf(part),
      (pid) => pid !== undefined && pid !== before,
      60,
    );
  }

  pidOf(part: Part | 'database'): number | undefined {
    return part === 'database' ? this.shop.database.pid() : this.shop.parts[part].pid;
  }

  /** As many single steps as a way needs. */
  private async go(axis: 'x' | 'y' | 'z', by: number): Promise<void> {
    for (let left = by; Math.abs(left) > 1e-6;) {
      const most = axis === 'z' ? 25 : 100;
      const step = Math.max(-most, Math.min(most, left));
      await this.tell({ command: 'step', axis, by: step, feed: 4000 });
      await this.ready();
      left -= step;
    }
  }

  /** Connects and homes, whatever it was at before. */
  async connectAndHome(job: string): Promise<void> {
    await this.eventually(
      async () => {
        const { bench } = await this.state();
        if (['off', 'lost'].includes(bench)) await this.tell({ command: 'connect', job });
        else if (bench === 'left' || bench.startsWith('held:')) await this.tell({ command: 'stop' });
        else if (bench === 'alarm') await this.tell({ command: 'clear' });
        return (await this.state()).bench;
      },
      (bench) => bench === 'unhomed' || bench === 'ready',
      60,
    );
    if ((await this.state()).bench === 'unhomed') await this.tell({ command: 'home' });
    await this.ready();
  }

  /** Sets up for a job of the demo shop: stock, bit, zero on the plate, and everything ticked. */
  async setUp(id: string, bitId: string): Promise<string> {
    const { revision, job } = await this.ask<{
      revision: string;
      job: {
        bits: { id: string; name: string; diameter: number; angle?: number; tip: number }[];
        stock: { length: number; width: number; corners: number[] };
      };
    }>(`/api/jobs/${id}`);
    const { name, diameter, angle, tip } = job.bits.find((b) => b.id === bitId)!;
    await this.connectAndHome(id);
    await this.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
    await this.hand({ hand: 'bit', id: bitId, name, diameter, angle, tip });
    await this.tell({ command: 'bit-in', bit: { id: bitId, name, diameter, angle, tip } });
    await this.hand({ hand: 'plate', place: 'corner', corner: 'lower-left' });
    await this.hand({ hand: 'clip', on: true });
    await this.hand({ hand: 'tap', on: true });
    await this.when((s) => s.circuit !== undefined);
    await this.hand({ hand: 'tap', on: false });
    await this.when((s) => s.machine?.touching === false);
    const { plate, tip: over } = await this.look();
    await this.go('x', (plate!.x0 + plate!.x1) / 2 - over.x);
    await this.go('y', (plate!.y0 + plate!.y1) / 2 - over.y);
    await this.go('z', plate!.z1 + 10 - over.z);
    await this.tell({ command: 'zero', job: id, method: 'corner', corner: 'lower-left' });
    await this.when((s) => s.zero?.z !== undefined);
    await this.ready();
    await this.hand({ hand: 'clip', on: false });
    await this.hand({ hand: 'plate', place: 'away' });
    for (const step of ['warm', 'pins', 'held', 'plate', 'dust', 'eyes', 'hand'])
      await this.tell({ command: 'tick', step, on: true, job: id });
    return revision;
  }

  /** Checks and starts the first program of a job that is set up. */
  async startRun(id: string, revision: string): Promise<string> {
    const { checked } = await this.ask<{ checked: Checked }>(`/api/jobs/${id}/check`, { revision, which: 0 });
    if (checked.findings.length > 0) throw new Error(checked.findings.join(' '));
    const started = await this.ask<{ id: string }>(`/api/jobs/${id}/runs`, {
      hash: checked.hash,
      token: checked.token,
    });
    return started.id;
  }
}

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
