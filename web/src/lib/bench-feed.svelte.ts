import { sentenceOf } from '@kerbe/core/schema/told';
import { getContext, setContext } from 'svelte';
import type { PageCommand } from '@kerbe/machine/runner/commands';
import { refusalOf } from '@kerbe/machine/runner/guards';
import { REASONS } from '@kerbe/machine/runner/reasons';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { ANYONE, atRest, TABLE } from '@kerbe/machine/runner/table';
import { BenchLine } from './bench-line/bench-line';
import type { Told } from './bench-line/hub';
import { pressed } from './hold-and-stop';
import { me } from './me.svelte';
import { type PressDoor, straightTo, throughServer } from './press-ways';
import { send } from './send';

/** What a bench is at: a state of the table, or `unknown` where its runner does not answer. */
interface BenchSummary {
  id: string;
  name: string;
  bench: string;
}

/** What is known of the bench, as it happens, and the way to tell it something. */
export class BenchFeed {
  state = $state.raw<RunnerState>(NOTHING);
  /** The bench that is followed; none where a job’s programs are carried over by hand. */
  bench = $state<string>();
  private refused = $state<string>();
  /** What all linked benches are at. */
  private all = $state.raw<BenchSummary[]>([]);
  /** Whether the server has passed on what the bench says, and does so now. */
  private heard = false;
  private absent = $state(false);
  /** Runs begun since this page was loaded, but dry ones. */
  started = $state(0);
  private line: BenchLine | undefined;
  /** Where Hold and Stop go straight to each bench’s runner. */
  private doors: readonly PressDoor[] = [];
  /** A press that has no answer yet, or that was not taken: said in large words. */
  unanswered = $state.raw<{ command: 'hold' | 'stop'; bench: string; why?: string }>();
  private opened = false;
  /** A job has said which bench it is for. */
  private chosen = false;
  private again: ReturnType<typeof setTimeout> | undefined;

  open(): void {
    me.wake();
    this.opened = true;
    this.line = new BenchLine((told) => this.hear(told));
    this.listen();
    void this.findDoors();
    if (this.bench === undefined) void this.followAny();
  }

  /** Follows another bench; what was known of the one before is forgotten. */
  follow(bench: string | undefined): void {
    this.chosen = true;
    if (bench === this.bench) return;
    this.bench = bench;
    this.state = NOTHING;
    this.refused = undefined;
    this.heard = this.absent = false;
    if (this.opened) this.listen();
  }

  /** Where no job says which, the first bench that is at something, so that it can be held; else the first there is. */
  private async followAny(): Promise<void> {
    const { benches } = await send<{ benches: BenchSummary[] }>('GET', '/api/benches').catch(() => ({ benches: [] }));
    if (this.chosen || !this.opened) return;
    const busy = benches.find(({ bench }) => bench in TABLE && !atRest(bench as RunnerState['bench']));
    this.follow((busy ?? benches.at(0))?.id);
    this.chosen = false;
  }

  private listen(): void {
    this.line?.follow({ page: me.page, bench: this.bench });
  }

  private hear(told: Told): void {
    if (told.is === 'absent') {
      this.absent = true;
      return;
    }
    if (told.is === 'benches') {
      this.all = JSON.parse(told.data) as BenchSummary[];
      if (this.bench === undefined) this.absent = false;
      return;
    }
    const { bench, state: next } = JSON.parse(told.data) as { bench: string; state: RunnerState };
    if (bench !== this.bench) return;
    const { run } = next;
    if (run && !run.dry && this.state.run?.id !== run.id && this.heard && !run.endedAt) this.started++;
    this.heard = true;
    this.state = next;
    this.absent = false;
  }

  /** Found before they are needed; until then Hold and Stop go through the server alone. */
  private async findDoors(): Promise<void> {
    try {
      this.doors = (await send<{ doors: PressDoor[] }>('GET', '/api/benches')).doors;
    } catch {
      this.again = setTimeout(() => void this.findDoors(), 1000);
    }
  }

  /** Benches that are not followed here and are at something, with what that is. */
  get others(): { id: string; name: string; says: string; held: boolean }[] {
    return this.all
      .filter(({ id, bench }) => id !== this.bench && (!(bench in TABLE) || !atRest(bench as RunnerState['bench'])))
      .map(({ id, name, bench }) => ({
        id,
        name,
        held: bench.startsWith('held:'),
        says: bench in TABLE ? `is ${TABLE[bench as RunnerState['bench']].says}` : 'cannot be heard at the moment',
      }));
  }

  /** What was refused last, or that the bench cannot be heard. */
  get problem(): string | undefined {
    return this.absent ? ABSENT : (this.refused ?? (this.state.unwritten ? UNWRITTEN : undefined));
  }

  close(): void {
    clearTimeout(this.again);
    this.line?.close();
  }

  /** A linked machine is at something, so that Hold and Stop belong on the screen. */
  get busy(): boolean {
    return !atRest(this.state.bench);
  }

  get linked(): boolean {
    return this.state.machine !== undefined;
  }

  /** Whether this page commands the bench, or could by its first word. */
  get mine(): boolean {
    return !this.state.operator || this.state.operator.page === me.page;
  }

  /** Why a button would be refused now, in a sentence; nothing where it would not. */
  whyNot(command: PageCommand['command'] | 'run' | 'take-up'): string | undefined {
    if (!this.mine && !ANYONE.includes(command)) return REASONS['other-operator'];
    const reason = refusalOf(this.state, command);
    return reason && REASONS[reason];
  }

  /** Tells the bench something; what it refuses is kept in `problem`. */
  async tell(command: PageCommand): Promise<boolean> {
    this.refused = undefined;
    if (this.bench === undefined) return false;
    if (command.command === 'hold' || command.command === 'stop') return this.press(command.command, this.bench);
    try {
      await send('POST', `/api/benches/${this.bench}/command`, command);
      return true;
    } catch (error) {
      this.refused = sentenceOf(error);
      return false;
    }
  }

  /** Presses Hold or Stop of a bench, whether this page follows it or not. */
  press(command: 'hold' | 'stop', bench: string): Promise<boolean> {
    const named = this.all.find(({ id }) => id === bench)?.name;
    const shown = { command, bench: named ?? this.state.facts?.name ?? 'the machine' };
    const door = this.doors.find(({ id }) => id === bench);
    const ways = [...(door ? [straightTo(door, command)] : []), throughServer(bench, command)];
    return pressed(ways, {
      unanswered: () => (this.unanswered = shown),
      answered: (answer) => {
        this.unanswered = answer.taken ? undefined : { ...shown, why: answer.why };
      },
    });
  }
}
const NOTHING: RunnerState = { bench: 'off', ticks: {} };
const ABSENT =
  'The bench cannot be heard at the moment; go by what the machine itself does. This page waits for it to come back.';
const UNWRITTEN =
  'How the run goes cannot be written down: the disk of this computer is full. Make room on it; what is known is kept until then.';
const KEY = Symbol('bench');

export function provideBench(feed: BenchFeed): void {
  setContext(KEY, feed);
}

export function useBench(): BenchFeed {
  return getContext<BenchFeed>(KEY);
}
