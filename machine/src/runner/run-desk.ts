import { randomUUID } from 'node:crypto';
import { formatMinutes } from '@kerbe/core/quantity/format';
import { checkProgram } from './check-program.ts';
import type { Command, ProgramOrder } from './commands.ts';
import type { ProgramStore } from './program-store.ts';
import { ProgramRun, type RunContext, waysOfRun } from './program-run.ts';
import { CommandRefused } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';
import { openSteps } from './ticks.ts';
import { waysUntil } from './way-times.ts';
import type { ZeroKeeper } from './zero-keeper.ts';

/** Checks programs, and lets a run start only as what was checked: the same text, bench, zero and bit. */
export class RunDesk {
  private checked?: { order: ProgramOrder; stamp: string };

  constructor(
    private readonly state: RunnerState,
    private readonly programs: ProgramStore,
    private readonly zero: ZeroKeeper,
  ) {}

  /** What a check rests on besides the program: anything of it that changes makes the check worth nothing. */
  private stamp(): string {
    const { zero, origin, bit } = this.state;
    return JSON.stringify([zero, origin, bit, this.state.facts]);
  }

  /** Looks at a program as this bench would run it now, and shows what was found. */
  async check(order: ProgramOrder): Promise<void> {
    const { state } = this;
    const stamp = this.stamp();
    // Both look through the whole program, at the same time.
    const planned = this.plannedFromHere(order).catch(() => []);
    const { lines, looked, findings } = await checkProgram(order, {
      programs: this.programs,
      facts: state.facts,
      origin: state.origin,
      zero: state.zero,
    });
    const { hash, jobId, revision } = order;
    this.checked = { order, stamp };
    state.checked = {
      token: randomUUID(),
      hash,
      jobId,
      revision,
      at: new Date().toISOString(),
      lines,
      looked: [...looked, ...(await planned)],
      findings,
      bit: order.cuts[0].bit,
    };
  }

  /** What a run would take from where the machine stands now, in a sentence; nothing where that is not known. */
  private async plannedFromHere(order: ProgramOrder): Promise<string[]> {
    const { state, programs } = this;
    if (!state.facts) return [];
    const timeline = await programs.timeline(order.hash);
    const ways = waysUntil(await waysOfRun(order, { state, facts: state.facts, programs }, timeline), Infinity);
    if (ways === 0) return [];
    const changes = new Set(order.cuts.map(({ bit }) => bit.id)).size - 1;
    return [
      `It takes ${formatMinutes(order.plannedMinutes + ways)} from where the machine stands now: ${formatMinutes(order.plannedMinutes)} at the cuts, and ${formatMinutes(ways)} there, between bits and to where it is parked.${changes > 0 ? ` Changing ${changes === 1 ? 'the bit' : `bits ${changes} times`} comes on top.` : ''}`,
    ];
  }

  /** A run of what was checked, with all it reads before anything moves. @throws {CommandRefused} */
  async prepare(
    command: Command & { command: 'run' | 'take-up' },
    context: Omit<RunContext, 'facts'>,
  ): Promise<ProgramRun> {
    const { order, facts } = this.mayStart(command);
    const run = new ProgramRun(order, command, { ...context, facts });
    await run.prepare();
    // Something may have happened while the program was read.
    this.mayStart(command);
    return run;
  }

  /** What a run may start of, as everything stands now. @throws {CommandRefused} */
  private mayStart(command: Command & { command: 'run' | 'take-up' }) {
    const { order, stamp } = this.checked ?? {};
    const { checked, facts } = this.state;
    if (!order || !checked || !facts || checked.token !== command.token) throw new CommandRefused('unchecked');
    if (checked.hash !== command.hash || stamp !== this.stamp()) throw new CommandRefused('check-stale');
    if (checked.findings.length > 0) throw new CommandRefused('check-failed', checked.findings[0]);
    if (JSON.stringify(order.bench) !== JSON.stringify(facts)) throw new CommandRefused('other-bench');
    this.zero.demand(order.basis);
    const [open] = openSteps(this.state, facts, order.jobId, order.cuts.some(({ bit }) => bit.turns)).filter(({ dry }) => !order.dry || dry); // prettier-ignore
    if (open) throw new CommandRefused('list-open', `Tick this at Set-up first: ${open.text}.`);
    return { order, facts };
  }
}
