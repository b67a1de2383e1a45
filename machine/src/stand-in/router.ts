import { BlockError } from '@kerbe/core/program/block';
import { Axes, type Point } from './axes.ts';
import { type Action, Interpreter, Refused } from '@kerbe/core/program/interpreter';
import type { Hand } from './hands.ts';
import { SETTER, SPOILBOARD_TOP, Table } from './table.ts';
import { type FittedBit, Workpiece } from './workpiece.ts';
import type { RouterState, RouterWord } from '../link/messages.ts';

/** Machine coordinates: X and Y grow from the home corner, Z is 0 at the top and negative below. */
export const TRAVEL = { x: 820, y: 520, z: 130 };

const LIMITS = {
  speed: { x: 6000 / 60, y: 6000 / 60, z: 2400 / 60 },
  acceleration: { x: 400, y: 400, z: 250 },
  cornerStep: 400 / 60,
};

/** Turns a minute that the spindle gains or loses in a second. */
const SPINDLE_RAMP = 8000;

const MOST_PENDING = 20_000;

/** A simulated router: table, axes, spindle, switches and controller, on a clock of its own. */
export class StandInRouter {
  readonly axes = new Axes(LIMITS);
  readonly table = new Table();
  readonly interpreter = new Interpreter();
  bit?: FittedBit;
  fitted = 0;
  /** Seconds since it was switched on, by its own clock. */
  clock = 0;
  homed = false;
  emergency = false;
  alarm?: string;
  private word: 'idle' | 'moving' | 'homing' | 'probing' | 'waiting' | 'jogging' = 'idle';
  private spindleAsked = 0;
  private spindleTurns = 0;
  private spindleShare = 1;
  private pending: { line: number; text: string }[] = [];
  private waiting: Action[] = [];
  private dwell = 0;
  private taken = 0;
  private readTo = 0;
  private reported = 0;
  private stopping = false;
  private readonly random: () => number;

  /** @param tell receives every message for the client. */
  constructor(
    private readonly tell: (message: Record<string, unknown>) => void,
    seed = 1,
  ) {
    this.random = mulberry(seed);
    this.axes.position = { x: 130 + this.random() * 40, y: 90 + this.random() * 40, z: -20 };
    this.interpreter.position = this.axes.position;
  }

  /** A new link counts its lines from 1 again; what an earlier one left waiting is forgotten. */
  connected(): void {
    this.stop();
    this.taken = this.readTo = this.reported = 0;
  }

  /** The carved piece, for comparing it with what was planned. */
  piece(): Record<string, unknown> {
    const { piece } = this.table;
    if (!piece) return {};
    return {
      columns: piece.columns,
      rows: piece.rows,
      cell: piece.cell,
      heights: Buffer.from(piece.heights.buffer).toString('base64'),
    };
  }

  /** Takes one line of RS-274. */
  block(text: string): void {
    const line = ++this.taken;
    if (this.emergency) return this.refuse(line, 'The emergency stop is pressed; release it first.');
    if (this.alarm) return this.refuse(line, `The machine has stopped: ${this.alarm}`);
    if (this.pending.length >= MOST_PENDING) return this.refuse(line, 'Too many lines wait already.');
    this.pending.push({ line, text });
  }

  /** Takes a control word: see `docs/stand-in.md`. */
  control(command: string, argument: string): void {
    const number = Number(argument);
    if (command === 'hold') this.axes.holding = true;
    else if (command === 'resume') {
      this.axes.holding = false;
      if (this.word === 'waiting') this.word = 'moving';
    } else if (command === 'stop') {
      this.stopping = this.axes.queued > 0;
      if (this.stopping) this.axes.holding = true;
      else this.stop();
    } else if (command === 'home') this.home();
    else if (command === 'clear') {
      if (!this.emergency) this.alarm = undefined;
    } else if (command === 'feed' && number >= 10 && number <= 200) {
      this.axes.override = number / 100;
      this.axes.replan();
    } else if (command === 'spindle' && number >= 50 && number <= 150) this.spindleShare = number / 100;
    else if (command === 'jog') this.jog(argument);
    else this.tell({ error: `The control word “${command} ${argument}” is not known.` });
  }

  /** What someone standing at the machine does. */
  hand(hand: Hand): void {
    if (hand.hand === 'emergency') {
      this.emergency = hand.pressed;
      if (hand.pressed) {
        // Cut off in full motion, the axes run on unseen, so where they are is no longer sure.
        if (this.axes.queued > 0) this.homed = false;
        this.halt('the emergency stop was pressed');
      }
    } else if (hand.hand === 'stock') {
      const [ll, lr, ur, ul] = hand.corners;
      this.table.piece = new Workpiece(
        { x: 60 + Math.round(this.random() * 600) / 10, y: 50 + Math.round(this.random() * 400) / 10 },
        hand.length,
        hand.width,
        [ll, lr, ur, ul],
      );
    } else if (hand.hand === 'bit') {
      if (this.spindleTurns > 0) return this.halt('a hand was put to the turning spindle');
      this.bit = {
        name: hand.name,
        diameter: hand.diameter,
        halfAngle: hand.angle === undefined ? undefined : (hand.angle * Math.PI) / 360,
        tipDiameter: hand.tip,
        length: 38 + Math.round(this.random() * 1400) / 100,
      };
      this.fitted++;
    } else if (hand.hand === 'plate') {
      this.table.plate = hand.place;
      if (hand.corner) this.table.plateCorner = hand.corner;
    } else if (hand.hand === 'clip') this.table.clip = hand.on;
    else if (hand.hand === 'tap') this.table.tapped = hand.on;
  }

  /** Lets time pass. */
  advance(seconds: number): void {
    // Small slices, so that waiting lines are read in time whatever the clock's rate.
    for (let left = seconds; left > 1e-9;) {
      const slice = Math.min(left, 0.25);
      left -= slice;
      this.slice(slice);
    }
    const done = this.finished();
    if (done > this.reported) {
      this.reported = done;
      this.tell({ done });
    }
  }

  /** The last line whose every move has been made. */
  private finished(): number {
    if (this.axes.queued > 0) return this.axes.line > 0 ? this.axes.line - 1 : this.reported;
    const busy = this.waiting.length > 0 || this.dwell > 0 || this.word === 'waiting' || this.word === 'probing';
    return busy ? Math.max(0, this.readTo - 1) : this.readTo;
  }

  private slice(seconds: number): void {
    this.clock += seconds;
    const ramp = SPINDLE_RAMP * seconds;
    const asked = this.spindleAsked * this.spindleShare;
    this.spindleTurns += Math.max(-ramp, Math.min(ramp, asked - this.spindleTurns));
    let left = seconds;
    for (let round = 0; round < 10_000 && left > 1e-9; round++) {
      this.readAhead();
      if (this.axes.queued > 0) {
        left = this.axes.advance(left, (from, to, rapid) => this.travelled(from, to, rapid));
        if (this.axes.holding) {
          if (this.stopping && this.axes.speed === 0) this.stop();
          return;
        }
        if (this.axes.queued > 0) continue;
      }
      if (this.alarm) return;
      if (this.word === 'homing') this.arrived();
      if (this.word === 'probing') {
        // The whole way was made without a touch.
        this.halt('the probe move ended without a touch; check the clip and the plate');
        this.tell({ probe: null });
        return;
      }
      if (this.word === 'jogging') this.word = 'idle';
      if (this.dwell > 0) {
        const t = Math.min(this.dwell, left);
        this.dwell -= t;
        left -= t;
        if (this.dwell > 1e-9) return;
        this.dwell = 0;
      }
      if (this.word === 'waiting') return;
      const action = this.waiting.shift();
      if (action) this.perform(action);
      else if (this.pending.length === 0) {
        if (this.word === 'moving') this.word = 'idle';
        return;
      }
    }
  }

  /** Reads lines while the axes can look ahead over them; stops at whatever has to wait for the axes to arrive. */
  private readAhead(): void {
    if (['homing', 'probing', 'jogging', 'waiting'].includes(this.word)) return;
    while (this.axes.wantsMore && this.waiting.length === 0 && this.pending.length > 0 && !this.alarm) {
      const { line, text } = this.pending[0];
      const before = this.axes.queued;
      if (before === 0) this.interpreter.position = this.axes.position;
      let actions: Action[];
      try {
        actions = this.interpreter.read(text);
      } catch (error) {
        if (!(error instanceof Refused || error instanceof BlockError)) throw error;
        this.refuse(line, error.message);
        this.halt(`line ${line} was refused: ${error.message}`);
        return;
      }
      this.pending.shift();
      this.readTo = line;
      while (actions.length > 0) {
        const action = actions[0];
        if (action.do !== 'move') break;
        if (!this.mayGo(action.to, line)) return;
        this.axes.add(action.to, action.feed, line);
        if (this.word === 'idle') this.word = 'moving';
        actions.shift();
      }
      this.waiting = actions;
      if (actions.length > 0 && this.word === 'idle') this.word = 'moving';
    }
  }

  private mayGo(to: Point, line: number): boolean {
    if (!this.homed) {
      this.refuse(line, 'The machine is not homed; home it first.');
      this.halt('it was asked to move before it was homed');
      return false;
    }
    const reach = 0.001;
    const out = (['x', 'y', 'z'] as const).find((axis) =>
      axis === 'z' ? to.z > reach || to.z < -TRAVEL.z - reach : to[axis] < -reach || to[axis] > TRAVEL[axis] + reach,
    );
    if (!out) return true;
    this.refuse(line, `This move leaves the reach of the ${out.toUpperCase()} axis.`);
    this.halt(`line ${line} would have left the reach of the ${out.toUpperCase()} axis`);
    return false;
  }

  private perform(action: Action): void {
    if (action.do === 'move') {
      if (!this.mayGo(action.to, this.readTo)) return;
      this.axes.add(action.to, action.feed, this.readTo);
    } else if (action.do === 'dwell') this.dwell = action.seconds;
    else if (action.do === 'spindle') {
      if (action.turns > 0 && this.table.clip)
        return this.halt('the spindle was started with the touch clip still on the bit');
      if (action.turns > 0 && !this.bit) return this.halt('the spindle was started without a bit');
      this.spindleAsked = action.turns;
    } else if (action.do === 'bit') {
      if (this.spindleTurns > 0 || this.spindleAsked > 0)
        return this.halt('a bit change was asked for with the spindle turning');
    } else if (action.do === 'pause') this.word = 'waiting';
    else if (action.do === 'probe') {
      if (!this.mayGo(action.to, this.readTo)) return;
      if (this.bit && (this.table.touching || this.table.contact(this.bit, this.tip(this.axes.position)))) {
        this.tell({ probe: null });
        return this.halt('the touch circuit was closed before the probe move began');
      }
      this.word = 'probing';
      this.axes.add(action.to, action.feed, this.readTo);
    }
  }

  private tip({ x, y, z }: Point): Point {
    return { x, y, z: z - (this.bit?.length ?? 0) };
  }

  /** What happens on a straight stretch; a returned point is where the axes stop. */
  private travelled(from: Point, to: Point, rapid: boolean): Point | undefined {
    const { bit } = this;
    if (!bit) return undefined;
    const a = this.tip(from);
    const b = this.tip(to);
    const length = Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z);
    if (this.word === 'probing') {
      const steps = Math.max(1, Math.ceil(length / 0.002));
      for (let k = 1; k <= steps; k++) {
        const t = k / steps;
        const at = { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, z: a.z + (b.z - a.z) * t };
        if (!this.table.contact(bit, at)) continue;
        const machine = { x: at.x, y: at.y, z: at.z + bit.length };
        this.word = 'moving';
        this.tell({ probe: machine });
        return machine;
      }
    }
    const turning = this.spindleTurns > 1000 && this.spindleAsked > 0;
    if (this.word === 'homing') return undefined;
    const steps = Math.max(1, Math.ceil(length / 0.5));
    if (!turning || rapid)
      for (let k = 1; k <= steps; k++) {
        const t = k / steps;
        const at = { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, z: a.z + (b.z - a.z) * t };
        // A rapid move straight up out of its own groove cuts nothing.
        if (turning && b.x === a.x && b.y === a.y && b.z >= a.z) break;
        const hit = this.table.blocked(bit, at);
        if (!hit) continue;
        this.halt(`the bit was driven into the ${hit}${turning ? ' in a rapid move' : ' with the spindle standing'}`);
        return { x: at.x, y: at.y, z: at.z + bit.length };
      }
    else if (this.table.blocked(bit, b) === 'plate') {
      this.halt('the bit was driven into the touch plate');
      return to;
    }
    const { piece } = this.table;
    if (turning && piece) {
      const local = (p: Point) => ({ x: p.x - piece.corner.x, y: p.y - piece.corner.y, z: p.z - SPOILBOARD_TOP });
      piece.cut(bit, local(a), local(b));
    }
    return undefined;
  }

  private home(): void {
    if (this.emergency) return this.tell({ error: 'The emergency stop is pressed; release it first.' });
    if (this.word !== 'idle' || this.spindleTurns > 0 || this.axes.queued > 0)
      return this.tell({ error: 'The machine is busy; it can be homed when it stands still with the spindle off.' });
    this.alarm = undefined;
    this.word = 'homing';
    const { position: p } = this.axes;
    this.axes.holding = false;
    this.axes.add({ x: p.x, y: p.y, z: 0 }, 1500, 0);
    this.axes.add({ x: 0, y: 0, z: 0 }, 3000, 0);
    this.axes.add({ x: 2, y: 2, z: -2 }, 1000, 0);
    this.axes.add({ x: 0, y: 0, z: 0 }, 120, 0);
  }

  private arrived(): void {
    this.homed = true;
    this.word = 'idle';
    this.interpreter.position = this.axes.position;
    this.interpreter.reset();
  }

  /** A short move by hand: `x dx y dy z dz f feed`, mm and mm/min. Not homed, it goes slowly and stops at the ends. */
  private jog(argument: string): void {
    const v = new Map([...argument.matchAll(/([xyzf])\s*(-?[\d.]+)/g)].map((m) => [m[1], Number(m[2])]));
    if (this.emergency || this.alarm)
      return this.tell({ error: 'The machine has stopped; clear that before moving by hand.' });
    if ((this.word !== 'idle' && this.word !== 'jogging') || this.pending.length > 0 || this.spindleTurns > 0)
      return this.tell({
        error: 'The machine is busy; it can be moved by hand when it stands still with the spindle off.',
      });
    const p = this.axes.target;
    const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
    this.axes.holding = false;
    this.axes.add(
      {
        x: clamp(p.x + (v.get('x') ?? 0), 0, TRAVEL.x),
        y: clamp(p.y + (v.get('y') ?? 0), 0, TRAVEL.y),
        z: clamp(p.z + (v.get('z') ?? 0), -TRAVEL.z, 0),
      },
      Math.min(this.homed ? 6000 : 600, v.get('f') ?? 1000),
      0,
    );
    if (this.axes.queued > 0) this.word = 'jogging';
  }

  /** Ends everything in hand: the axes slow down and stand, waiting lines are forgotten, the spindle stops. */
  private stop(): void {
    this.stopping = false;
    this.pending = [];
    this.waiting = [];
    this.dwell = 0;
    this.axes.drop();
    this.axes.holding = false;
    this.spindleAsked = 0;
    this.readTo = this.taken;
    this.interpreter.position = this.axes.position;
    if (this.word !== 'homing') this.word = 'idle';
    else {
      this.word = 'idle';
      this.homed = false;
    }
  }

  private halt(why: string): void {
    this.stop();
    this.spindleTurns = this.emergency ? 0 : this.spindleTurns;
    this.alarm = why;
    this.tell({ alarm: why });
  }

  private refuse(line: number, why: string): void {
    this.tell({ refused: line, why });
  }

  state(): RouterState {
    const p = this.axes.position;
    const offset = this.interpreter.offsets[this.interpreter.system];
    return {
      word: this.stateWord(),
      alarm: this.alarm,
      machine: rounded(p),
      work: rounded({ x: p.x - offset.x, y: p.y - offset.y, z: p.z - offset.z }),
      line: this.axes.line,
      done: this.finished(),
      homed: this.homed,
      spindle: Math.round(this.spindleTurns),
      override: Math.round(this.axes.override * 100),
      spindleOverride: Math.round(this.spindleShare * 100),
      touching: this.table.touching,
      clock: this.clock,
    };
  }

  private stateWord(): RouterWord {
    if (this.emergency) return 'emergency';
    if (this.alarm) return 'alarm';
    if (this.axes.holding) return this.axes.speed > 0 ? 'slowing' : 'held';
    if (this.word === 'waiting') return 'waiting';
    if (this.word === 'idle') return this.homed ? 'idle' : 'unhomed';
    return this.word;
  }

  /** What someone beside the machine sees: where things lie on the table. The job never uses it. */
  look(): Record<string, unknown> {
    const { piece, clip, plate } = this.table;
    const tip = this.tip(this.axes.position);
    return {
      travel: TRAVEL,
      tip: rounded(tip),
      spoilboard: SPOILBOARD_TOP,
      setter: SETTER,
      piece: piece && {
        x: piece.corner.x,
        y: piece.corner.y,
        length: piece.length,
        width: piece.width,
        top: SPOILBOARD_TOP + Math.max(...piece.thickness),
      },
      plate: plate === 'away' ? undefined : { ...this.table.plateBox() },
      clip,
      bit: this.bit && { name: this.bit.name, diameter: this.bit.diameter, number: this.fitted },
      emergency: this.emergency,
    };
  }
}

function rounded({ x, y, z }: Point): Point {
  const r = (v: number) => Math.round(v * 1e4) / 1e4;
  return { x: r(x), y: r(y), z: r(z) };
}

/** A small seeded random number generator (Mulberry32, public domain by T. Ettinger). */
function mulberry(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
