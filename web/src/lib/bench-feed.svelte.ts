import { getContext, setContext } from 'svelte';
import type { Command } from '@kerbe/machine/runner/commands';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { Refusal, send } from './send';

/** What is known of the bench, as it happens, and the way to tell it something. */
export class BenchFeed {
  state = $state.raw<RunnerState>({ link: 'off', plateSeen: false });
  problem = $state<string>();
  /** Runs begun since this page was loaded. */
  started = $state(0);
  private heard = false;
  private source: EventSource | undefined;

  open(): void {
    this.source = new EventSource('/api/bench/events');
    this.source.onmessage = (event: MessageEvent<string>) => {
      const next = JSON.parse(event.data) as RunnerState;
      if (next.run && this.state.run?.id !== next.run.id && this.heard && !next.run.endedAt) this.started++;
      this.heard = true;
      this.state = next;
      if (this.problem === ABSENT) this.problem = undefined;
    };
    this.source.onerror = () => {
      this.problem = ABSENT;
    };
  }

  close(): void {
    this.source?.close();
  }

  /** Tells the bench something; what it refuses is kept in `problem`. */
  async tell(command: Command | { command: 'connect' }): Promise<boolean> {
    this.problem = undefined;
    try {
      await send('POST', '/api/bench/command', command);
      return true;
    } catch (error) {
      this.problem = error instanceof Refusal ? error.message : String(error);
      return false;
    }
  }
}

const ABSENT = 'The bench cannot be seen at the moment; a run goes on without this page. Waiting for it to come back.';
const KEY = Symbol('bench');

export function provideBench(feed: BenchFeed): void {
  setContext(KEY, feed);
}

export function useBench(): BenchFeed {
  return getContext<BenchFeed>(KEY);
}
