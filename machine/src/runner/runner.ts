import { BlockError } from '@kerbe/core/program/block';
import { type Extents, programExtents } from '@kerbe/core/program/extents';
import { MachineError, MachineLink } from '../link/machine-link.ts';
import type { RouterMessage } from '../link/messages.ts';
import type { Command, RunOrder, Zero } from './commands.ts';
import type { RunnerState, RunState } from './runner-state.ts';
import { measureBit, touchOff } from './touch-plate.ts';

/** A command that cannot be carried out now; the message is one sentence. */
export class CommandRefused extends Error {
  override name = 'CommandRefused';
}

/** Where the bit is brought for a change, as shares of the travel: in front, in the middle. */
const CHANGE_PLACE = { x: 0.5, y: 0.1 };

/**
 * Drives one machine. It is told what to do by commands and says what it does by its state; nothing moves that was not
 * asked for.
 */
export class Runner {
  readonly state: RunnerState = { link: 'off', plateSeen: false };
  private link?: MachineLink;
  private task?: Promise<void>;
  private stopAsked = false;
  private bitIsIn = false;
  private offset = { x: 0, y: 0, z: 0 };
  private lookTimer?: NodeJS.Timeout;

  /**
   * @param changed called on every change of state.
   * @param ended called once when a run has ended.
   */
  constructor(
    private readonly changed: () => void,
    private readonly ended: (run: RunState) => void,
  ) {}

  /** Carries out a command; long ones go on after this returns. @throws {CommandRefused} */
  async do(command: Command): Promise<void> {
    switch (command.command) {
      case 'connect':
        return this.connect(command.port);
      case 'disconnect':
        if (this.running()) throw new CommandRefused('A run is on; stop it before disconnecting.');
        this.link?.close('The link was closed.');
        return;
      case 'home':
        return this.start('Homing', async (link) => {
          this.state.zero = undefined;
          link.control('home');
          await link.fresh();
          await link.until(() => link.state?.word !== 'homing');
        });
      case 'jog': {
        const link = this.ready(false);
        link.control(`jog x${command.x} y${command.y} z${command.z} f${command.feed}`);
        return;
      }
      case 'zero':
        return this.zero(command);
      case 'nudge-zero':
        if (!this.state.zero) throw new CommandRefused('Zero is not set yet; set it with the touch plate first.');
        return this.start('Moving zero', async (link) => {
          this.offset.z += command.z;
          await link.run(`G21 G10 L2 P1 Z${this.offset.z.toFixed(4)}`);
        });
      case 'go-to-zero':
        if (!this.state.zero) throw new CommandRefused('Zero is not set yet; set it with the touch plate first.');
        this.noPlate();
        return this.start('Going to zero: up, across, down', async (link) => {
          await link.run('G21 G90 G94 G54', 'G53 G0 Z0', 'G0 X0 Y0', `G1 Z${command.lift} F800`);
        });
      case 'run':
        return this.run(command);
      case 'hold':
        this.linked().control('hold');
        return;
      case 'resume':
        if (this.state.machine?.word === 'waiting' && !this.running())
          throw new CommandRefused('Nothing is being run.');
        this.linked().control('resume');
        return;
      case 'stop':
        this.stopAsked = true;
        this.linked().control('stop');
        this.link?.nudge();
        return;
      case 'bit-is-in': {
        if (this.state.run?.phase !== 'bit-change') throw new CommandRefused('No bit is being changed now.');
        if (this.state.machine?.word === 'emergency')
          throw new CommandRefused(
            'The emergency stop is still pressed; release it so that the new bit can be measured.',
          );
        if (this.state.machine?.word === 'alarm') this.linked().clear();
        this.bitIsIn = true;
        this.link?.nudge();
        return;
      }
      case 'feed':
        this.linked().control(`feed ${command.percent}`);
        return;
      case 'spindle':
        this.linked().control(`spindle ${command.percent}`);
        return;
      case 'clear':
        if (this.state.machine?.word === 'emergency')
          throw new CommandRefused('The emergency stop is still pressed; release it at the machine first.');
        this.linked().clear();
        this.state.problem = undefined;
        this.changed();
        return;
      case 'hand':
        this.linked().control(`hand ${JSON.stringify(command.hand)}`);
        if (command.hand.hand === 'stock') this.state.zero = undefined;
        this.linked().control('look');
        return;
    }
  }

  private async connect(port: number): Promise<void> {
    if (this.link && !this.link.isClosed) return;
    Object.assign(this.state, { link: 'connecting', problem: undefined, plateSeen: false, zero: undefined });
    this.changed();
    try {
      const link = await MachineLink.open(port, (message) => this.heard(message));
      this.link = link;
      Object.assign(this.state, { link: 'on', machine: link.state });
      this.lookTimer = setInterval(() => link.control('look'), 250);
      link.until(() => false).catch(() => link.isClosed && this.lost(link));
      this.watch(link);
    } catch (error) {
      Object.assign(this.state, { link: 'off', machine: undefined, problem: sentence(error) });
      this.changed();
      throw new CommandRefused(sentence(error));
    }
    this.changed();
  }

  /** Notices a broken link even while an alarm has ended the first wait. */
  private watch(link: MachineLink): void {
    const timer = setInterval(() => {
      if (!link.isClosed) return;
      clearInterval(timer);
      this.lost(link);
    }, 200);
    timer.unref();
  }

  private lost(link: MachineLink): void {
    if (this.link !== link) return;
    clearInterval(this.lookTimer);
    this.link = undefined;
    const asked = link.isClosed === 'The link was closed.';
    Object.assign(this.state, {
      link: asked ? 'off' : 'lost',
      machine: undefined,
      look: undefined,
      zero: undefined,
      plateSeen: false,
      problem: asked ? undefined : link.isClosed,
    });
    this.changed();
  }

  private heard(message: RouterMessage): void {
    if (message.state) {
      this.state.machine = message.state;
      if (message.state.touching) this.state.plateSeen = true;
      if (!message.state.homed) this.state.zero = undefined;
    }
    if (message.look) this.state.look = message.look;
    if (message.alarm) this.state.problem = `The machine has stopped: ${message.alarm}.`;
    if (message.error) this.state.problem = message.error;
    if (message.state || message.look || message.alarm || message.error) this.changed();
  }

  private linked(): MachineLink {
    if (!this.link || this.link.isClosed)
      throw new CommandRefused('The machine is not connected; connect it at Set-up.');
    return this.link;
  }

  private running(): boolean {
    return ['starting', 'running', 'bit-change', 'measuring'].includes(this.state.run?.phase ?? '');
  }

  /** A machine that stands still and may be told to move. */
  private ready(homed = true): MachineLink {
    const link = this.linked();
    if (this.task) throw new CommandRefused(`The machine is busy: ${this.state.doing ?? 'running'}.`);
    const word = this.state.machine?.word;
    if (word === 'emergency')
      throw new CommandRefused('The emergency stop is pressed; release it at the machine first.');
    if (word === 'alarm') throw new CommandRefused('The machine has stopped; see why, and clear it first.');
    if (homed && !this.state.machine?.homed) throw new CommandRefused('The machine is not homed; home it first.');
    return link;
  }

  private start(doing: string, work: (link: MachineLink) => Promise<void>, homed = doing !== 'Homing'): void {
    const link = this.ready(homed);
    this.stopAsked = false;
    this.state.doing = doing;
    this.state.problem = undefined;
    this.changed();
    this.task = work(link)
      .then(() => link.fresh())
      .then(() => {})
      .catch((error) => {
        this.state.problem = sentence(error);
      })
      .finally(() => {
        this.task = undefined;
        this.state.doing = undefined;
        this.changed();
      });
  }

  private say = (doing: string): void => {
    this.state.doing = doing;
    this.changed();
  };

  /** The plate and its clip belong away before anything but zeroing moves; only the simulated machine can tell. */
  private noPlate(): void {
    if (this.state.look?.clip)
      throw new CommandRefused('The touch clip is still on the bit; take the clip and the plate away first.');
    if (this.state.look?.plate) throw new CommandRefused('The touch plate still lies there; take it away first.');
  }

  private zero(order: Zero): void {
    if (!this.state.plateSeen)
      throw new CommandRefused(
        'The touch circuit has not been seen to close; clip it on and tap the plate against the bit first.',
      );
    if (this.state.machine?.touching)
      throw new CommandRefused('The touch circuit is closed already; take the plate off the bit.');
    if ((this.state.machine?.spindle ?? 0) > 0) throw new CommandRefused('The spindle is turning; stop it first.');
    this.start('Setting zero', async (link) => {
      this.state.zero = undefined;
      await link.run('G21 G90 G94 G54');
      const found = await touchOff(link, order, this.say);
      Object.assign(this.offset, found);
      const words = (['x', 'y', 'z'] as const)
        .filter((axis) => found[axis] !== undefined)
        .map((axis) => `${axis.toUpperCase()}${found[axis]!.toFixed(4)}`);
      await link.run(`G10 L2 P1 ${words.join(' ')}`);
      this.state.zero = { at: new Date().toISOString(), method: order.method, bit: order.bit.name };
    });
  }

  private run(order: RunOrder): void {
    this.ready();
    if (!this.state.zero)
      throw new CommandRefused('Zero is not set for this piece; set it with the touch plate at Set-up.');
    this.noPlate();
    if (!order.setter && new Set([this.state.zero.bit, ...order.cuts.map((cut) => cut.bit)]).size > 1)
      throw new CommandRefused(
        'This bench has no tool setter to measure a changed bit with; make one program for each bit.',
      );
    const extents = extentsOf(order.program);
    for (const axis of ['x', 'y', 'z'] as const) {
      const low = extents.min[axis] + this.offset[axis];
      const high = extents.max[axis] + this.offset[axis];
      const [least, most] = axis === 'z' ? [-order.travel.z, 0] : [0, order.travel[axis]];
      if (low < least - 0.001 || high > most + 0.001)
        throw new CommandRefused(
          `From this zero the program would leave the reach of the ${axis.toUpperCase()} axis by ${Math.max(least - low, high - most).toFixed(1)} mm; move the stock or set zero again.`,
        );
    }
    const lines = order.program.split('\n').filter((line) => line.trim() !== '');
    const run: RunState = {
      id: order.id,
      job: order.job,
      jobId: order.jobId,
      hash: order.hash,
      phase: 'starting',
      plannedMinutes: order.plannedMinutes,
      minutes: 0,
      minutesLeft: order.plannedMinutes,
      line: 0,
      lines: lines.length,
      cut: 0,
      cuts: order.cuts,
      startedAt: new Date().toISOString(),
    };
    this.state.run = run;
    this.start('Running', async (link) => {
      try {
        await this.stream(link, order, lines, run);
        run.phase = this.stopAsked ? 'stopped' : 'done';
        // The clip was off and comes on anew: its circuit has to be seen again before it is trusted.
        this.state.plateSeen = false;
        if (this.stopAsked) {
          run.why = 'stopped by the operator';
          await link.fresh();
          await link.until(() => link.state?.word === 'idle');
          await link.run('M5', 'G53 G0 Z0');
        }
        await link.fresh();
      } catch (error) {
        run.phase = this.stopAsked ? 'stopped' : 'failed';
        this.state.plateSeen = false;
        run.why = this.stopAsked ? 'stopped by the operator' : sentence(error);
        if (!this.stopAsked) this.state.problem = run.why;
      } finally {
        run.endedAt = new Date().toISOString();
        this.ended(run);
      }
    });
  }

  private async stream(link: MachineLink, order: RunOrder, lines: readonly string[], run: RunState): Promise<void> {
    const began = (await link.fresh()).clock;
    let first = 0;
    let base = link.sent;
    let fitted = this.state.zero!.bit;
    const follow = setInterval(() => {
      run.line = Math.min(lines.length, first + Math.max(0, link.done - base));
      run.minutes = ((link.state?.clock ?? began) - began) / 60;
      const planned = order.timeline[Math.floor(run.line / order.lineStep)] ?? order.plannedMinutes;
      run.minutesLeft = Math.max(0, order.plannedMinutes - planned) / ((link.state?.override ?? 100) / 100);
      const cut = run.cuts.findIndex((c) => run.line < c.to);
      run.cut = cut < 0 ? run.cuts.length - 1 : cut;
      this.changed();
    }, 100);
    try {
      while (first < lines.length && !this.stopAsked) {
        // Up to the next bit change, which is the operator's work and not the machine's.
        let end = first + 1;
        while (end < lines.length && !/\bM0?6\b/.test(lines[end].replace(/\(.*?\)/g, ''))) end++;
        const isChange = /\bM0?6\b/.test(lines[first].replace(/\(.*?\)/g, ''));
        if (isChange) {
          const wanted = run.cuts.find((cut) => cut.from >= first)?.bit ?? fitted;
          if (wanted !== fitted) {
            await this.changeBit(link, order, run, wanted);
            if (this.stopAsked) return;
            fitted = wanted;
          }
        }
        run.phase = 'running';
        this.say('Running');
        base = link.sent;
        await link.send(lines.slice(first, end), () => this.stopAsked);
        const target = link.sent;
        await link.until(() => link.done >= target || this.stopAsked);
        first = end;
        base = link.sent;
      }
      run.line = Math.min(lines.length, first);
      run.minutes = ((await link.fresh()).clock - began) / 60;
    } finally {
      clearInterval(follow);
    }
  }

  /** Measures the old bit, brings the spindle forward, waits for the operator, measures the new one and shifts zero. */
  private async changeBit(link: MachineLink, order: RunOrder, run: RunState, wanted: string): Promise<void> {
    const { setter, travel } = order;
    run.bit = wanted;
    run.phase = 'measuring';
    this.say('Measuring the bit that comes out');
    const before = setter ? await measureBit(link, setter) : undefined;
    await link.run('M5', 'G53 G0 Z0', `G53 G0 X${travel.x * CHANGE_PLACE.x} Y${travel.y * CHANGE_PLACE.y}`);
    await link.fresh();
    await link.until(() => link.state?.spindle === 0);
    run.phase = 'bit-change';
    this.bitIsIn = false;
    this.say(`Waiting for ${wanted}`);
    await this.operator(link);
    if (this.stopAsked) return;
    run.phase = 'measuring';
    this.say('Measuring the new bit');
    if (setter && before !== undefined) {
      const now = await measureBit(link, setter);
      this.offset.z += now - before;
      await link.run(`G21 G10 L2 P1 Z${this.offset.z.toFixed(4)}`);
      if (this.state.zero) this.state.zero.bit = wanted;
    }
    run.bit = undefined;
    await link.run('G53 G0 Z0');
  }

  /** Waits for “the bit is in”. The emergency stop may be pressed meanwhile: that is how the spindle is made safe. */
  private async operator(link: MachineLink): Promise<void> {
    while (!this.bitIsIn && !this.stopAsked) {
      try {
        await link.until(() => this.bitIsIn || this.stopAsked);
      } catch (error) {
        if (link.isClosed || !link.state?.homed) throw error;
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    }
    if (this.stopAsked) return;
    await link.fresh();
    await link.until(() => link.state?.word === 'idle');
  }
}

function sentence(error: unknown): string {
  if (error instanceof MachineError || error instanceof CommandRefused) return error.message;
  return `Something went wrong in the runner (${error instanceof Error ? error.message : String(error)}); stop the machine by hand and connect again.`;
}

function extentsOf(program: string): Extents {
  try {
    return programExtents(program);
  } catch (error) {
    if (error instanceof BlockError) throw new CommandRefused(error.message);
    throw error;
  }
}
