import { ProgramFollower, modeWords, withMotion } from '@kerbe/core/program/follow';
import { minutesUntil, NO_TIMES, type Timeline } from '@kerbe/core/program/timeline';
import { CountLost, LinkLost } from '../link/wire.ts';
import { benchKindOf } from '../kinds/bench-kinds.ts';
import { driverOf } from '../kinds/kinds.ts';
import type { KindCommand } from '../kinds/commands.ts';
import type { Driver, Telling, ToolChange } from '../kinds/driver.ts';
import type { MachineWire } from '../link/machine-state.ts';
import type { BenchFacts } from './bench-facts.ts';
import type { ProgramOrder } from './commands.ts';
import type { LengthBook } from './length-book.ts';
import type { ProgramPlace } from './program-facts.ts';
import type { ProgramStore } from './program-store.ts';
import { CommandRefused } from './reasons.ts';
import type { RunnerState, RunState } from './runner-state.ts';
import type { EventName } from './states.ts';
import { toolAt } from './tool-at.ts';
import { type WayTime, wayTimes, waysUntil } from './way-times.ts';
import { type BitShape, type Change, otherBit } from './zero.ts';

/** What a run needs of the runner whose run it is. */
export interface RunContext {
  state: RunnerState;
  facts: BenchFacts;
  programs: ProgramStore;
  lengths: LengthBook;
  telling: Telling;
  event(name: EventName): void;
  changed(): void;
  happened(change: Change): void;
}

type Answer = 'confirm' | KindCommand['command'];
type Start =
  | { id: string; command: 'run' }
  | { id: string; command: 'take-up'; line: number; acknowledged: number; broken: string };

/** One run of a program: its lines, its bit changes, its waits, and what is true of it at any moment. */
export class ProgramRun {
  readonly state: RunState;
  private timeline: Timeline = NO_TIMES;
  private ways: readonly WayTime[] = [];
  /** Its last line is made, and it waits until the tool is off. */
  private atItsEnd = false;
  private place?: ProgramPlace;
  private wire?: MachineWire;
  /** Program lines since the runner last said something of its own: the first, how many, and the wire's count before. */
  private stretch = { first: 0, sent: 0, base: 0 };
  /** How much of the line that is being made has passed: a share of its time, whatever the override was meanwhile. */
  private inLine = 0;
  private waiting?: { answers: readonly Answer[]; take: (answer: Answer) => void };

  constructor(
    private readonly order: ProgramOrder,
    private readonly start: Start,
    private readonly context: RunContext,
  ) {
    const { hash, job, jobId, plannedMinutes, dry, cuts } = order;
    const takeUp = start.command === 'take-up';
    this.state = {
      id: start.id,
      job,
      jobId,
      hash,
      phase: 'on',
      plannedMinutes,
      dry,
      minutes: 0,
      waited: 0,
      minutesLeft: plannedMinutes,
      line: takeUp ? start.line : 0,
      lines: context.state.checked?.lines ?? 0,
      from: takeUp ? start.line : undefined,
      takesUp: takeUp ? start.broken : undefined,
      cut: 0,
      cuts: cuts.map(({ title, from, to, bit }) => ({ title, from, to, bit })),
      startedAt: new Date().toISOString(),
    };
  }

  /** Reads what has to be known before anything moves. @throws {CommandRefused} */
  async prepare(): Promise<void> {
    const { programs, state } = this.context;
    const { hash } = this.order;
    if (this.start.command === 'take-up') {
      if (this.start.line > this.start.acknowledged) throw new CommandRefused('beyond-broken');
      const place = await programs.place(hash, this.start.line, AbortSignal.timeout(300_000));
      // Before its first moves the program has said nowhere to go to: it begins at its beginning.
      this.place = place.known ? place : undefined;
      this.state.line = this.state.from = place.known ? place.line : 0;
    }
    const needed = toolAt(this.order, this.state.line);
    const other = otherBit(state.bit, needed);
    if (other) throw new CommandRefused('other-bit', other);
    this.timeline = await programs.timeline(hash);
    this.ways = await waysOfRun(this.order, this.context, this.timeline);
    // Of a run that is taken up only the rest is planned.
    this.state.plannedMinutes = this.state.minutesLeft = this.left(this.state.line, 100);
  }

  private plungeAt(line: number): number {
    const { cuts } = this.order;
    return (cuts.find((cut) => line < cut.to) ?? cuts.at(-1)!).plunge;
  }

  /** Makes it, from its first line or from where it is taken up. */
  async make(wire: MachineWire, signal: AbortSignal): Promise<void> {
    this.wire = wire;
    const { programs } = this.context;
    // What someone set for another run does not go on unseen.
    this.driver.plain(wire);
    const first = this.state.line;
    const follower = new ProgramFollower(this.place?.modes);
    let anew = false;
    if (this.place) {
      await this.enter(wire, this.place, signal);
      anew = true;
    }
    this.begin(first);
    let k = first;
    let motion: number | undefined;
    let power: number | undefined;
    for await (const text of programs.lines(this.order.hash, first)) {
      const before = follower.modes;
      follower.take(text);
      if (follower.changes) {
        await this.allMade(signal);
        const wanted = this.order.cuts.find((cut) => cut.from >= k)?.bit;
        if (wanted && wanted.id !== this.context.state.bit?.id) {
          this.context.event('change-asked');
          await this.changeTool(wire, wanted, signal);
          this.context.event('cutting-begins');
        }
        anew = true;
      }
      let line = text;
      if (anew && !follower.changes) {
        motion = before.motion;
        power = this.driver.powerInMoves && before.turns;
        await this.restate(wire, before, signal);
        this.begin(k);
        anew = false;
      }
      if (motion !== undefined) {
        line = withMotion(text, motion, power);
        if (line !== text || follower.modes.motion !== motion) motion = undefined;
      }
      await wire.send(line, signal);
      this.stretch.sent++;
      k++;
      if (follower.pauses) await this.pause(wire, follower.remark || text, signal);
      if (follower.changes) {
        await this.allMade(signal);
        this.begin(k);
      }
      if (follower.ended) break;
    }
    await this.allMade(signal);
    this.atItsEnd = true;
    this.state.lines = Math.max(this.state.lines, k);
    this.state.line = k;
    this.update();
  }

  private begin(line: number): void {
    this.stretch = { first: line, sent: 0, base: this.wire!.sent };
  }

  private async allMade(signal: AbortSignal): Promise<void> {
    await this.wire!.made(signal);
    this.update();
  }

  /** States the program's modes anew after words of the runner's own. The feed is read before the units of its block. */
  private async restate(wire: MachineWire, modes: ProgramPlace['modes'], signal: AbortSignal): Promise<void> {
    await wire.run(signal, modeWords(modes));
    if (modes.feed > 0) await wire.run(signal, `F${(modes.feed / (modes.inch ? 25.4 : 1)).toFixed(3)}`);
  }

  /** How the machine of the bench is led. */
  private get driver(): Driver {
    return driverOf(this.context.facts.kind);
  }

  private changeTool(wire: MachineWire, wanted: BitShape, signal: AbortSignal): Promise<void> {
    const { state, facts, lengths, telling } = this.context;
    const change: ToolChange = {
      state,
      facts,
      lengths,
      telling,
      run: this.state,
      event: (name) => this.context.event(name),
      changed: () => this.context.changed(),
      happened: (what) => this.context.happened(what),
      answered: (answers, until) => this.answered(answers, until),
    };
    return this.driver.changeTool(wire, wanted, change, signal);
  }

  private async enter(wire: MachineWire, place: ProgramPlace, signal: AbortSignal): Promise<void> {
    const first = this.driver.askBeforeEntering(place, this.order);
    if (first) await this.ask(first, wire, signal);
    await this.driver.enterAt(wire, place, this.order, this.plungeAt(this.state.line), signal);
  }

  /** The program waits for someone (M0): its last remark is what it asks. */
  private async pause(wire: MachineWire, prompt: string, signal: AbortSignal): Promise<void> {
    const target = wire.sent - 1;
    await wire.until(() => wire.done >= target && wire.state!.word === 'waiting', signal);
    await this.ask(prompt, wire, signal);
  }

  private async ask(prompt: string, wire: MachineWire, signal: AbortSignal): Promise<void> {
    this.state.prompt = prompt;
    this.context.event('pause-asked');
    await this.answered(['confirm'], signal);
    this.state.prompt = undefined;
    if (wire.state!.word === 'waiting') wire.control('resume');
    this.context.event('cutting-begins');
  }

  /** Waits for one of these answers. The emergency stop may be pressed meanwhile: that is how a spindle is made safe. */
  private answered<A extends Answer>(answers: readonly A[], signal: AbortSignal): Promise<A> {
    return new Promise((resolve, reject) => {
      const end = () => {
        this.waiting = undefined;
        signal.removeEventListener('abort', abort);
      };
      const abort = () => {
        end();
        reject(signal.reason as Error);
      };
      if (signal.aborted) return abort();
      signal.addEventListener('abort', abort);
      this.waiting = {
        answers,
        take: (answer) => {
          end();
          resolve(answer as A);
        },
      };
    });
  }

  answer(answer: Answer): void {
    if (this.waiting?.answers.includes(answer)) this.waiting.take(answer);
  }

  /** Time that has passed by the machine's clock, s. */
  timed(seconds: number, working: boolean): void {
    if (working && !this.atItsEnd) {
      this.state.minutes += seconds / 60;
      const { line } = this.state;
      const length = this.left(line, this.override) - this.left(line + 1, this.override);
      if (length > 0) this.inLine = Math.min(1, this.inLine + seconds / 60 / length);
    } else this.state.waited += seconds / 60;
    this.update();
  }

  /** Of the feed, per cent. */
  private get override(): number {
    return this.context.state.machine?.override ?? 100;
  }

  /** Planned minutes from where so many lines are made to its end, with the ways there and back, at a feed override. */
  private left(lines: number, percent: number): number {
    const { timeline, ways, order } = this;
    const until = (line: number) => minutesUntil(timeline, line, percent) + waysUntil(ways, line);
    // The last way up is in the plan of the whole alone.
    const up = Math.max(0, order.plannedMinutes - (timeline.minutes.at(-1) ?? 0));
    return Math.max(0, until(Infinity) - until(lines) + (lines >= this.state.lines && lines > 0 ? 0 : up));
  }

  /** What is true of it now: the last line made, the cut, and the time left. */
  private update(): void {
    const { wire, state } = this;
    if (!wire) return;
    const { first, sent, base } = this.stretch;
    const made = first + Math.min(sent, Math.max(0, wire.done - base));
    if (made > state.line) {
      state.line = made;
      this.inLine = 0;
    }
    const cut = state.cuts.findIndex(({ to }) => state.line < to);
    state.cut = cut < 0 ? state.cuts.length - 1 : cut;
    const left = this.left(state.line, this.override);
    const next = this.left(state.line + 1, this.override);
    state.minutesLeft = Math.max(0, left - this.inLine * (left - next));
  }

  /** @param failure what ended it; nothing where it came to its end. */
  end(failure: unknown, stopped: boolean): void {
    this.update();
    const { state } = this;
    state.endedAt = new Date().toISOString();
    const { machine } = this.context.state;
    if (machine) {
      const at = this.driver.wentOutAt?.(machine) ?? machine.machine;
      state.at = { x: at.x - machine.machine.x + machine.work.x, y: at.y - machine.machine.y + machine.work.y };
    }
    state.bit = state.prompt = undefined;
    if (failure instanceof CountLost || this.wire?.countFault) state.lineUnknown = true;
    if (failure === undefined) state.phase = 'done';
    else if (stopped) Object.assign(state, { phase: 'stopped', why: 'stopped by the operator' });
    else
      Object.assign(state, {
        phase: failure instanceof LinkLost && failure.fault !== 'closed' ? 'lost' : 'failed',
        why: failure instanceof Error ? failure.message : String(failure),
      });
  }
}

/** How long the ways of a program take from where the machine is now; none where that is not known. */
export async function waysOfRun(
  order: ProgramOrder,
  { state, facts, programs }: Pick<RunContext, 'state' | 'facts' | 'programs'>,
  timeline: Timeline,
): Promise<WayTime[]> {
  const { machine, origin } = state;
  const { limits, hash, plannedMinutes } = order;
  if (!limits || !machine || !origin || timeline.minutes.length === 0) return [];
  const ways = await programs.ways(hash, AbortSignal.timeout(300_000));
  const up = Math.max(0, plannedMinutes - timeline.minutes.at(-1)!);
  const setter = benchKindOf(facts).measuredAt?.(facts);
  return wayTimes(ways, { at: machine.machine, origin, setter, limits, up });
}
