import { setPriority } from 'node:os';
import workerpool from 'workerpool';
import { refusalOf } from '../refusal.ts';
import type { Outcome } from './outcome.ts';
import { TASKS, type TaskName } from './tasks.ts';

/** A process for heavy work: the bench and the pages come first, but where they keep the computer busy, it is not left waiting. */
setPriority(10);

type Arguments = never[];

function task(name: TaskName) {
  return async (...args: Arguments): Promise<Outcome<unknown>> => {
    // By this the server knows whose memory to watch, and whom to end.
    workerpool.workerEmit({ pid: process.pid });
    try {
      return { found: await (TASKS[name] as (...args: Arguments) => Promise<unknown>)(...args) };
    } catch (error) {
      const refused = refusalOf(error);
      return refused ? { refused } : { fault: String((error as Error)?.stack ?? error) };
    }
  };
}

workerpool.worker(Object.fromEntries((Object.keys(TASKS) as TaskName[]).map((name) => [name, task(name)])));
