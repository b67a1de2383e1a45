import { type Remote, wrap } from 'comlink';
import type { ComputeWorker } from './compute.worker';
import ComputeProcess from './compute.worker?worker';

type Answer<K extends keyof ComputeWorker> = Awaited<ReturnType<ComputeWorker[K]>>;

/** The thread was ended before it answered. */
export class ThreadEnded extends Error {
  override name = 'ThreadEnded';
}

/** A thread that computes, and that can be ended whatever it is at: whoever waits for it is told. */
export class ComputeThread {
  private thread!: Worker;
  private remote!: Remote<ComputeWorker>;
  private readonly waiting = new Set<(error: Error) => void>();

  constructor() {
    this.begin();
  }

  private begin(): void {
    this.thread = new ComputeProcess();
    this.remote = wrap<ComputeWorker>(this.thread);
  }

  /** @throws {ThreadEnded} where it was ended meanwhile; what the thread threw. */
  ask<K extends keyof ComputeWorker>(name: K, ...args: Parameters<ComputeWorker[K]>): Promise<Answer<K>> {
    const call = this.remote[name] as unknown as (...args: unknown[]) => Promise<Answer<K>>;
    return new Promise((resolve, reject) => {
      this.waiting.add(reject);
      call(...args)
        .then(resolve, reject)
        .finally(() => this.waiting.delete(reject));
    });
  }

  /** Ends what it is at, and begins anew with nothing known. */
  restart(): void {
    this.end();
    this.begin();
  }

  end(): void {
    this.thread.terminate();
    for (const reject of this.waiting) reject(new ThreadEnded('The computation was ended.'));
    this.waiting.clear();
  }
}
