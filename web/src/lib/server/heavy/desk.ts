import { availableParallelism, totalmem } from 'node:os';
import workerpool from 'workerpool';
import { log } from '../log.ts';
import { OURS } from '../door.ts';
import { Refused } from '../refusal.ts';
import { memoryOf } from './memory.ts';
import type { Outcome } from './outcome.ts';
import type { Found, TaskName, TASKS } from './tasks.ts';
import { Turns } from './turns.ts';

/** What one computation may have. */
export interface HeavyLimits {
  /** Bytes. */
  memory: number;
  /** Milliseconds. */
  time: number;
}

const USUAL: HeavyLimits = { memory: Math.min(2e9, totalmem() / 5), time: 15 * 60_000 };
const LOOK_EVERY = 100;

const PLACES = Math.max(2, availableParallelism() - 1);

/** What may take minutes. The rest takes seconds, and has places of its own: nobody waits for a page's drawing behind it. */
const LONG: ReadonlySet<TaskName> = new Set(['programs']);

/** Who waits for a computation, and what ends it when nobody does any more. */
interface Running<T> {
  found: Promise<T>;
  waiting: number;
  end: AbortController;
}

/**
 * Heavy work, done in processes of their own at low priority: fair turns between users, ended when the last who asked
 * for it has gone, when it takes too much memory or too long. What is asked for while it runs is done once.
 */
export class HeavyDesk {
  private readonly pool: workerpool.Pool;
  private readonly turns = { long: new Turns(PLACES, 200), short: new Turns(PLACES, 200) };
  private readonly running = new Map<string, Running<unknown>>();

  constructor(
    worker: string,
    private readonly limits = USUAL,
  ) {
    this.pool = workerpool.pool(worker, {
      workerType: 'process',
      maxWorkers: 2 * PLACES,
      workerTerminateTimeout: 500,
      // As this process was started: where that reads TypeScript, so do they.
      // What changes the tables is none of their business.
      forkOpts: {
        serialization: 'advanced',
        execArgv: process.execArgv,
        env: { ...process.env, DATABASE_OWNER_URL: undefined },
      },
    });
  }

  /**
   * @param user whose turn it takes. @param signal of whoever asked; the work ends when all who asked have gone.
   * @throws {Refused} with a sentence; the signal's reason.
   */
  async do<N extends TaskName>(
    name: N,
    args: Parameters<(typeof TASKS)[N]>,
    user: string,
    signal: AbortSignal,
  ): Promise<Found<N>> {
    const key = JSON.stringify([name, ...args]);
    let own = this.running.get(key) as Running<Found<N>> | undefined;
    if (!own) {
      const end = new AbortController();
      const made: Running<Found<N>> = { waiting: 0, end, found: this.begin(name, args, user, end.signal) };
      own = made;
      this.running.set(key, made);
      const over = () => {
        if (this.running.get(key) === made) this.running.delete(key);
      };
      made.found.then(over, over);
    }
    own.waiting++;
    const task = own;
    return new Promise<Found<N>>((resolve, reject) => {
      const leave = () => {
        if (--task.waiting === 0) task.end.abort(new Refused('Nobody waits for this any more.', 499));
        reject(signal.reason as Error);
      };
      if (signal.aborted) return leave();
      signal.addEventListener('abort', leave, { once: true });
      task.found.then(resolve, reject).finally(() => signal.removeEventListener('abort', leave));
    });
  }

  private async begin<N extends TaskName>(
    name: N,
    args: Parameters<(typeof TASKS)[N]>,
    user: string,
    signal: AbortSignal,
  ): Promise<Found<N>> {
    try {
      return await this.turns[LONG.has(name) ? 'long' : 'short'].take(user, signal, () => this.run(name, args, signal));
    } catch (error) {
      if (error instanceof RangeError)
        throw new Refused('Too much is being computed already; wait a little and try again.', 503);
      throw error;
    }
  }

  private async run<N extends TaskName>(
    name: N,
    args: Parameters<(typeof TASKS)[N]>,
    signal: AbortSignal,
    again = false,
  ): Promise<Found<N>> {
    signal.throwIfAborted();
    let pid: number | undefined;
    let why: Error | undefined;
    const end = (reason: Error) => {
      why ??= reason;
      try {
        if (pid) process.kill(pid, 'SIGKILL');
      } catch {
        // It has ended by itself.
      }
    };
    const gone = () => end(signal.reason as Error);
    signal.addEventListener('abort', gone);
    const late = setTimeout(() => end(tooLong(this.limits)), this.limits.time);
    const watch = setInterval(() => {
      if (pid) void memoryOf(pid).then((held) => held > this.limits.memory && end(tooLarge(this.limits)));
    }, LOOK_EVERY);
    try {
      const outcome = (await this.pool.exec(name, args, {
        on: (event: { pid: number }) => {
          pid = event.pid;
          if (why) end(why);
        },
      })) as Outcome<Found<N>>;
      pid = undefined;
      if (why) throw why;
      if ('found' in outcome) return outcome.found;
      if ('refused' in outcome)
        throw new Refused(outcome.refused.problem, outcome.refused.status, outcome.refused.reason);
      log.error({ task: name, error: outcome.fault }, 'a fault of ours in heavy work');
      throw new Refused(OURS, 500);
    } catch (error) {
      if (why) throw why;
      if (error instanceof Refused) throw error;
      // It may have been ended for what it did before, and taken this up a moment too late.
      if (!again) {
        log.warn({ task: name, error: String(error) }, 'a process of heavy work ended; its work is begun again');
        return this.run(name, args, signal, true);
      }
      log.error({ task: name, error: String(error) }, 'a process of heavy work ended');
      throw new Refused('The computation ended before it was done; try again, and look into the log if it stays.', 500);
    } finally {
      signal.removeEventListener('abort', gone);
      clearTimeout(late);
      clearInterval(watch);
    }
  }

  async close(): Promise<void> {
    await this.pool.terminate(true);
  }
}

function tooLarge({ memory }: HeavyLimits): Refused {
  return new Refused(
    `This needs more memory than one computation may have (${(memory / 1e9).toFixed(1)} GB); simplify its artwork, or cut it in several jobs.`,
    422,
  );
}

function tooLong({ time }: HeavyLimits): Refused {
  return new Refused(
    `This takes longer than one computation may (${Math.round(time / 60_000)} minutes); simplify its artwork, or cut it in several jobs.`,
    422,
  );
}
